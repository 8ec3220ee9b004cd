// Looks at every logbook: whether any entry was changed, left out, added in between or put elsewhere.
import postgres from "postgres";

/** Jobs whose chain is looked at in one go. */
const AT_ONCE = 500;

/**
 * @param client of the postgres package, or a transaction of it
 * @returns how many jobs and entries there are, a hash over the ends of all chains, and what is wrong; a database of a
 * version that did not chain its entries yet can only be counted
 */
export async function verifyChains(client) {
  const [{ chained }] = await client`select to_regproc('entry_hash') is not null as chained`;
  if (!chained) {
    const [counts] = await client`
      select (select count(*)::int from jobs) as jobs, (select count(*)::int from entries) as entries`;
    return { ...counts, digest: "", wrong: [], isChained: false };
  }
  const jobs = await client`select id, title, entry_count as count from jobs order by id`;
  const wrong = [];
  let entries = 0;
  const heads = [];
  for (let i = 0; i < jobs.length; i += AT_ONCE) {
    const some = jobs.slice(i, i + AT_ONCE);
    const rows = await client`
      select job_id as job, count(*)::int as count, max(seq) as last,
        array_agg(seq order by seq) filter (where not is_right) as changed,
        array_agg(seq order by seq) filter (where seq <> place) as moved,
        encode((array_agg(hash order by seq desc))[1], 'hex') as head
      from (
        select job_id, seq, hash,
          row_number() over (partition by job_id order by seq) as place,
          hash is not distinct from entry_hash(
            lag(hash) over (partition by job_id order by seq), job_id, seq, batch, body, saved_at) as is_right
        from entries where job_id = any(${some.map((j) => j.id)})
      ) looked
      group by job_id`;
    const by = new Map(rows.map((r) => [r.job, r]));
    for (const job of some) {
      const found = by.get(job.id) ?? { count: 0, last: 0, changed: null, moved: null, head: "" };
      entries += found.count;
      heads.push(`${job.id} ${found.count} ${found.head}`);
      const name = `job "${job.title}" (${job.id})`;
      if (found.moved) wrong.push(`${name}: an entry is missing before number ${found.moved[0]}`);
      if (found.changed) wrong.push(`${name}: changed since it was saved: entry ${few(found.changed)}`);
      if (found.count < job.count)
        wrong.push(`${name}: ${job.count} entries were saved, ${found.count} are there: the last are missing`);
    }
  }
  const [{ digest }] = await client`select encode(sha256(convert_to(${heads.join("\n")}, 'UTF8')), 'hex') as digest`;
  return { jobs: jobs.length, entries, digest, wrong, isChained: true };
}
const few = (numbers) =>
  `${numbers.slice(0, 5).join(", ")}${numbers.length > 5 ? ` and ${numbers.length - 5} more` : ""}`;

export async function verifyAt(url) {
  const client = postgres(url, { max: 1, onnotice: () => undefined });
  try {
    return await verifyChains(client);
  } finally {
    await client.end();
  }
}
