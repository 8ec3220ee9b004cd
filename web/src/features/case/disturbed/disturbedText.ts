import type { Disturbed } from "@radicula/core";
import { DISTURBED_WORDS, type Namer } from "@radicula/core/words";
import { t } from "@/messages";

/** What is not as it was found, in a few words: "X5 cavity 4: unplugged". */
export const disturbedText = (d: Pick<Disturbed, "thing" | "how">, namer: Namer) =>
  `${d.thing
    .split(" ")
    .filter((id) => id !== "chassis")
    .map((id) => (id.includes(":") ? namer.point(id) : id))
    .join(t("disturbed.toJoin"))}: ${DISTURBED_WORDS[d.how].still}`;
