"use client";
import { REPORT_LENGTHS, REPORT_WORDS, type Block, type Report, issueText } from "@radicula/core/words";
import { Button } from "antd";
import Link from "next/link";
import { useState } from "react";
import { z } from "zod";
import { SiteHead } from "@/features/site/SiteHead";
import { post } from "@/ui/send";
import styles from "./Report.module.css";
import { t } from "@/messages";

/** A report in one of three lengths: on screen, printed, as a file, or by an address that ends. */
export function ReportPage({ job, report }: { readonly job: string; readonly report: Report }) {
  const file = (as: string) => `/api/jobs/${job}/report?as=${as}&length=${report.length}`;
  return (
    <div className={styles.page}>
      <div className={styles.bar}>
        <SiteHead />
        <section aria-label={t("report.lengthsAndFiles")} className={styles.tools}>
          <Link href={`/job/${job}`}>{t("report.backToTheJob")}</Link>
          <nav className={styles.lengths} aria-label={t("report.lengthOfTheReport")}>
            {REPORT_LENGTHS.map((l) => (
              <Link
                key={l}
                href={`/job/${job}/report?length=${l}`}
                aria-current={l === report.length ? "page" : undefined}
              >
                {REPORT_WORDS[l]}
              </Link>
            ))}
          </nav>
          <span className={styles.files}>
            <Button onClick={() => window.print()}>{t("report.print")}</Button>
            <Button type="primary" href={file("pdf")}>
              {t("report.pdf")}
            </Button>
            <Button href={file("html")}>{t("report.saveAsAPage")}</Button>
            <Button type="text" href="/settings">
              {t("report.letterheadAndRates")}
            </Button>
          </span>
          <ShareLine job={job} length={report.length} />
        </section>
      </div>
      <main id="content" className={styles.paper}>
        {report.letterhead.length ? (
          <p className={styles.letterhead}>
            {report.letterhead.map((l, i) => (i === 0 ? <b key={l}>{l}</b> : <span key={l}>{l}</span>))}
          </p>
        ) : (
          <p className={styles.noHead}>
            <Link href="/settings">{t("report.putTheNameOfTheWorkshop")}</Link>
          </p>
        )}
        <h1>{report.title}</h1>
        <Facts rows={report.facts} />
        {report.sections.map((s) => (
          <section key={s.heading}>
            <h2>{s.heading}</h2>
            {s.blocks.map((b, i) => (
              <BlockView key={`${b.kind} ${i}`} block={b} />
            ))}
          </section>
        ))}
        <p className={styles.foot}>{report.foot}</p>
      </main>
    </div>
  );
}

const SharedAnswer = z.object({ path: z.string(), days: z.number() });
function ShareLine({ job, length }: { readonly job: string; readonly length: Report["length"] }) {
  const [address, setAddress] = useState<string | undefined>(undefined);
  const [fault, setFault] = useState<string | undefined>(undefined);
  const share = async () => {
    const made = await post(`/api/jobs/${job}/share`, { length, days: SHARED_DAYS }, SharedAnswer);
    if (made.ok) setAddress(`${window.location.origin}${made.body.path}`);
    else setFault(made.issues.map(issueText).join(" "));
  };
  if (fault) return <p role="alert">{fault}</p>;
  return address === undefined ? (
    <p className={styles.share}>
      <button type="button" className="link" onClick={() => void share()}>
        {t("report.makeAnAddressToSendFor", { days: SHARED_DAYS })}
      </button>
    </p>
  ) : (
    <p className={styles.share} role="status">
      {t("report.whoeverHasThisAddressReadsThe", { days: SHARED_DAYS })} <a href={address}>{address}</a>
    </p>
  );
}
const SHARED_DAYS = 30;

function Facts({ rows }: { readonly rows: readonly (readonly [string, string])[] }) {
  return (
    <dl className={styles.facts}>
      {rows.map(([name, value]) => (
        <div key={name}>
          <dt>{name}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </dl>
  );
}

function BlockView({ block: b }: { readonly block: Block }) {
  switch (b.kind) {
    case "text":
      return <p>{b.strong ? <b>{b.text}</b> : b.text}</p>;
    case "caution":
      return <p className={styles.caution}>{b.text}</p>;
    case "list":
      return (
        <ul>
          {b.items.map((i) => (
            <li key={i}>{i}</li>
          ))}
        </ul>
      );
    case "facts":
      return <Facts rows={b.rows} />;
    case "photo":
      return (
        <figure>
          {/* eslint-disable-next-line @next/next/no-img-element -- a photo of the database, as it is */}
          <img src={`/api/photos/${b.id}`} alt={b.caption} />
          <figcaption>{b.caption}</figcaption>
        </figure>
      );
    case "table":
      return (
        <div className={styles.table}>
          <table>
            <thead>
              <tr>{b.head.map((h, i) => (h ? <th key={h}>{h}</th> : <td key={`none ${i}`} />))}</tr>
            </thead>
            <tbody>
              {b.rows.map((r, i) => (
                <tr key={`${i} ${r[0]}`}>
                  {r.map((c, j) => (
                    <td key={b.head[j] ?? j}>{c}</td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      );
  }
}
