import Link from "next/link";
import { PersonButton } from "@/features/people/PersonButton";
import { Logo } from "@/ui/Logo";
import { ThemeToggle } from "@/ui/ThemeToggle";
import { UnitsButton } from "@/ui/Units";
import styles from "./SiteHead.module.css";
import { t } from "@/messages";
import { worded } from "@radicula/core/words";

const PAGES = { jobs: "/", wirings: "/wirings", notebook: "/notebook", calculators: "/calculators" } as const;
type Page = keyof typeof PAGES;
const NAMES: Readonly<Record<Page, string>> = worded(() => ({
  jobs: t("site.jobs"),
  wirings: t("site.wirings"),
  notebook: t("site.notebook"),
  calculators: t("site.calculators"),
}));

/** The head of every page that is not a job or a wiring: where one is, and where else one can go. */
export function SiteHead({ here }: { readonly here?: Page }) {
  return (
    <header className={styles.head}>
      <Link href="/" className={styles.brand} aria-label={t("site.radiculaAllJobs")}>
        <Logo /> {t("site.radicula")}
      </Link>
      <nav className={styles.nav} aria-label={t("site.main")}>
        {(Object.keys(PAGES) as Page[]).map((place) => (
          <Link key={place} href={PAGES[place]} aria-current={place === here ? "page" : undefined}>
            {NAMES[place]}
          </Link>
        ))}
      </nav>
      <div className={styles.own}>
        <PersonButton />
        <UnitsButton />
        <ThemeToggle />
      </div>
    </header>
  );
}
