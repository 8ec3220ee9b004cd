import { expose } from "comlink";
import { inkPath } from "../ui/page/inkPath";

const api = { inkPath };
export type InkApi = typeof api;
expose(api);
