import { useState } from "react";
import type { Project } from "@/api/schema";

const ORDERS = {
  changed: {
    name: "last changed",
    compare: (a: Project, b: Project) => b.changedAt.localeCompare(a.changedAt),
  },
  name: { name: "name", compare: (a: Project, b: Project) => a.name.localeCompare(b.name) },
  created: { name: "newest", compare: (a: Project, b: Project) => b.createdAt.localeCompare(a.createdAt) },
};

type Order = keyof typeof ORDERS;

/** The projects whose names hold what is typed, in the order that is chosen. */
export function useFind(projects: Project[]) {
  const [text, setText] = useState("");
  const [order, setOrder] = useState<Order>("changed");
  const wanted = text.trim().toLocaleLowerCase();
  const found = projects
    .filter((project) => project.name.toLocaleLowerCase().includes(wanted))
    .sort(ORDERS[order].compare);
  return { text, setText, order, setOrder, found };
}

export function Find({ text, setText, order, setOrder }: ReturnType<typeof useFind>) {
  return (
    <>
      <input
        type="search"
        className="field !w-44 py-1"
        aria-label="Find a project"
        placeholder="Find"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <select
        className="field !w-auto py-1"
        aria-label="Order of the projects"
        value={order}
        onChange={(event) => setOrder(event.target.value as Order)}
      >
        {Object.entries(ORDERS).map(([id, { name }]) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </>
  );
}
