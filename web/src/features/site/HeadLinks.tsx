import Link from "next/link";
import styles from "./SiteHead.module.css";
import { t } from "@/messages";

/**
 * The same ways out, where a job or a wiring has a head of its own. On narrow screens the name of the program leads to
 * the jobs. What they lead to is fetched when it is asked for: on a job people stay.
 */
export function HeadLinks() {
  return (
    <nav className={styles.links} aria-label={t("site.main")}>
      <Link href="/" prefetch={false}>
        {t("site.jobs")}
      </Link>
      <Link href="/wirings" prefetch={false}>
        {t("site.wirings")}
      </Link>
    </nav>
  );
}
