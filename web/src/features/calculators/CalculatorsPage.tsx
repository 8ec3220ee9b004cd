import { SiteHead } from "@/features/site/SiteHead";
import { Calculators } from "./Calculators";
import styles from "./Calculators.module.css";
import { t } from "@/messages";

/** The sums of the trade on a page of their own. */
export function CalculatorsPage() {
  return (
    <div className={styles.page}>
      <SiteHead here="calculators" />
      <main id="content">
        <h1 className={styles.title}>{t("calculators.calculators")}</h1>
        <Calculators />
      </main>
    </div>
  );
}
