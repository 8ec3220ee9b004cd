import type { MetadataRoute } from "next";
import { t } from "@/messages/server";

/** What makes it stand on a tablet's home screen with its own name and picture. */
export default function manifest(): MetadataRoute.Manifest {
  return {
    name: "Radicula",
    short_name: "Radicula",
    description: t("pages.findsTheOneSharedCauseBehind"),
    start_url: "/",
    display: "standalone",
    background_color: "#F5F3EC",
    theme_color: "#F5F3EC",
    icons: [{ src: "/icon.svg", sizes: "any", type: "image/svg+xml" }],
  };
}
