import { MAX_CHARACTERS, notebookOf, readNotebook } from "@radicula/core";
import { answer, answering, jsonBody, refuse } from "@/server/answers";
import { addLessons, listLessons } from "@/server/repo/lessons";

export const dynamic = "force-dynamic";

/** The notebook as a file. */
export const GET = () =>
  answering(async () => {
    const lessons = (await listLessons()).map((kept) => kept.lesson);
    return new Response(`${JSON.stringify(notebookOf(lessons), null, 1)}\n`, {
      headers: {
        "Content-Type": "application/json",
        "Cache-Control": "no-store",
        "Content-Disposition": 'attachment; filename="notebook.json"',
      },
    });
  });

/** Takes in a notebook. Lessons of jobs that are here already stay as they are. */
export const POST = (request: Request) =>
  answering(async () => {
    const sent = await jsonBody(request, MAX_CHARACTERS);
    if (!sent.ok) return sent.refused;
    const read = readNotebook(sent.value);
    if (!read.ok) return refuse(422, read.issues);
    return answer({ added: await addLessons(read.value.lessons), of: read.value.lessons.length }, 201);
  });
