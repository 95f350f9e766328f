import createClient from "openapi-fetch";
import type { components, paths } from "./schema";

type Schemas = components["schemas"];
export type Piece = Schemas["Piece"];
export type OutlineFile = Schemas["OutlineFile"];
export type FittingPattern = Schemas["FittingPattern"];
export type TableRead = Schemas["TableRead"];
export type Doc = Schemas["Doc"];
export type Plan = Schemas["Plan"];
export type Edit = Schemas["Edit"];
export type Station = Schemas["Station"];
/** The zones of a blade from the point back. */
export type Zone = Station["z"];
export type Span = Schemas["Span"];
export type Heat = Schemas["Heat"];
export type State = Schemas["State"];
export type Forging = Schemas["Forging"];
export type Step = Schemas["Step"];
export type Warning = Schemas["Warning"];
export type Mended = Schemas["Mended"];
export type Stock = Schemas["Stock"];
export type StockItem = Schemas["StockItem"];
export type Pattern = Schemas["Pattern"];
export type Revision = Schemas["Revision"];
export type Copy = Schemas["Copy"];
export type Settings = Schemas["Settings"];
export type FieldMessage = Schemas["FieldMessage"];
export type Problem = Schemas["Problem"];
export type PieceAnswer = Schemas["PieceAnswer"];
export type RankedStock = Schemas["RankedStock"];
export type CutPlan = Schemas["CutPlan"];
export type SheetOrder = Schemas["SheetOrder"];
export type SheetPlan = Schemas["SheetPlan"];
export type Within = Schemas["Within"];
export type SheetPart = Schemas["SheetPart"];
export type Timer = Schemas["Timer"];
export type NewTimer = Schemas["NewTimer"];
export type Doubtful = Schemas["Doubtful"];
export type Fit = Schemas["Fit"];

export const api = createClient<paths>({ baseUrl: "/", fetch: (...a) => globalThis.fetch(...a) });

/** A refusal of the server, with the fields that are wrong. */
export class Refused extends Error {
  readonly problem: Problem;
  constructor(problem: Problem) {
    super(problem.detail);
    this.problem = problem;
  }
}

/** Unwraps an answer; throws Refused with what the server said. */
export async function ask<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const { data, error, response } = await call;
  if (error !== undefined || data === undefined) {
    const p = error as Problem | undefined;
    throw new Refused(
      p?.code
        ? p
        : {
            title: response.statusText,
            status: response.status,
            code: "problem.internal",
            detail: response.statusText,
          },
    );
  }
  return data;
}

/** A file as the body of a request, as it is. */
const raw = (file: Blob, type = "application/octet-stream") => ({
  body: file as unknown as string,
  bodySerializer: (b: unknown) => b as string,
  headers: { "Content-Type": type },
});

/** Takes a piece of work that another shop shared. */
export const sendShared = (file: Blob): Promise<Schemas["Piece"]> => ask(api.POST("/api/v1/pieces/shared", raw(file)));

/** Reads a pattern from a photograph of its printed page. */
export const sendScan = (file: Blob): Promise<Schemas["Pattern"]> => ask(api.POST("/api/v1/patterns/scan", raw(file)));

/** Puts a picture behind the outline of a piece; its bytes are the body. */
export function sendPicture(id: string, version: number, file: Blob): Promise<PieceAnswer> {
  return ask(
    api.POST("/api/v1/pieces/{id}/picture", {
      params: { path: { id }, query: { version } },
      ...raw(file),
    }),
  );
}

/** Puts a table of stock on the rack; its text is the body. */
export function sendTable(file: Blob, look: boolean): Promise<Schemas["TableRead"]> {
  return ask(
    api.POST("/api/v1/stock.csv", {
      params: { query: { look } },
      ...raw(file, "text/csv"),
    }),
  );
}

/** Puts a whole shop that was packed in the place of this one; its bytes are the body. */
export function sendShop(file: Blob): Promise<Schemas["Named"]> {
  return ask(
    api.POST("/api/v1/archive", {
      ...raw(file),
    }),
  );
}

/** What a photograph of a blank on its template says; it is not kept. */
export function readPhoto(file: Blob): Promise<Schemas["Silhouette"]> {
  return ask(
    api.POST("/api/v1/photo", {
      ...raw(file),
    }),
  );
}

/** Keeps a picture by itself; the answer names it. Its bytes are the body. */
export function sendKept(file: Blob): Promise<Schemas["Named"]> {
  return ask(
    api.POST("/api/v1/pictures", {
      ...raw(file),
    }),
  );
}

/** What a stream of events says, one after the other, until it ends or is left. */
export async function* streamed<T>(path: string, body: unknown, signal: AbortSignal): AsyncGenerator<T> {
  const answer = await globalThis.fetch(path, {
    method: "POST",
    headers: { "content-type": "application/json", accept: "text/event-stream" },
    body: JSON.stringify(body),
    signal,
  });
  if (!answer.ok || !answer.body) return;
  let rest = "";
  const text = answer.body.pipeThrough(new TextDecoderStream()).getReader();
  for (;;) {
    const { done, value } = await text.read();
    if (done) return;
    const lines = (rest + value).split("\n");
    rest = lines.pop() ?? "";
    for (const line of lines) if (line.startsWith("data: ")) yield JSON.parse(line.slice(6)) as T;
  }
}
