export const dynamic = "force-dynamic";

/** Whether the server answers at all, whatever its database does. */
export const GET = () => Response.json({ live: true }, { headers: { "Cache-Control": "no-store" } });
