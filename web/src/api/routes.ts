import type { paths } from "./schema";

/** What docs/openapi.yaml says of each route, as types: "GET /api/projects/{id}/mix", what it takes and what it answers. */
type Method = "get" | "post" | "put" | "patch" | "delete";
type Described<P extends keyof paths> = {
  [M in Method]: paths[P][M] extends object ? `${Uppercase<M>} ${P}` : never;
};

export type Route = { [P in keyof paths]: Described<P>[Method] }[keyof paths];

type Operation<R extends Route> = R extends `${infer M} ${infer P extends keyof paths}`
  ? paths[P][Lowercase<M> & Method]
  : never;

type Json<R> = R extends { content: { "application/json": infer T } } ? T : never;

/** The JSON that it answers where all went well. */
export type Answer<R extends Route> =
  Operation<R> extends { responses: infer All } ? Json<All[keyof All & (200 | 201 | 202)]> : never;

/** The JSON that it takes; nothing, where it takes none. */
export type Body<R extends Route> =
  Operation<R> extends { requestBody?: { content: { "application/json": infer T } } } ? T : undefined;

type InBraces<P extends string> = P extends `${string}{${infer Name}}${infer Rest}`
  ? Name | InBraces<Rest>
  : never;

/** What stands in braces in its path. */
export type Named<R extends Route> = Record<InBraces<R>, string | number>;

/** Method and path, with what stands in braces put in. */
export function addressOf<R extends Route>(route: R, named: Named<R>): [method: string, path: string] {
  const [method = "", path = ""] = route.split(" ");
  const values: Record<string, string | number> = named;
  return [method, path.replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(values[name] ?? ""))];
}
