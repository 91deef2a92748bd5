import createClient from "openapi-fetch";
import type { components, paths } from "./schema";
import { keepWrites } from "./outbox";
import { readUnchanged } from "./unchanged";

export type Schemas = components["schemas"];
export type Side = Schemas["Side"];
export type JobView = Schemas["JobView"];
export type StepBench = Schemas["StepBench"];
export type StepKey = Schemas["StepKey"];
export type CornerView = Schemas["CornerView"];

export const api = createClient<paths>({ baseUrl: "/" });
api.use(keepWrites, readUnchanged);

/** Problem details as the server sends them. */
export interface Problem {
  status: number;
  title: string;
  reason?: string;
  because?: string[];
  interlocks?: number[];
  errors?: { field: string; value: string; allowed: string; message: string }[];
  version?: number;
  traceId?: string;
  since?: { seq: number; by: string; what: string }[];
  open?: { jobId: string; number: number; bay: number; plate: string; sameCar: boolean }[];
}

export class ApiError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.title);
  }
  /** What is wrong with a field, if anything. */
  field(name: string): string | undefined {
    return this.problem.errors?.find((e) => e.field.toLowerCase() === name.toLowerCase())?.message;
  }
}

/** Unwraps an answer, or throws the problem. */
export async function take<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const { data, error, response } = await call;
  if (response.ok) return data as T;
  const problem = (error ?? {}) as Partial<Problem>;
  throw new ApiError({
    ...problem,
    title: problem.title ?? "The server did not answer.",
    status: response.status,
  });
}

/** The client's clock with its offset, to the second. */
export function occurredAt(now = new Date()): string {
  const offset = -now.getTimezoneOffset();
  const two = (n: number) => String(Math.trunc(Math.abs(n))).padStart(2, "0");
  const local = new Date(now.getTime() + offset * 60_000).toISOString().slice(0, 19);
  return `${local}${offset < 0 ? "-" : "+"}${two(offset / 60)}:${two(offset % 60)}`;
}
