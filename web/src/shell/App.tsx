import { useQuery, useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useCallback, useEffect, useState } from "react";
import { api } from "@/api/client";
import { openedMix } from "./openedMix";
import { ApiError } from "@/api/problem";
import { ProjectList } from "@/features/projects";
import { Account, Join, NewPassword, PostBox, SignIn } from "@/features/session";

const BankPage = lazy(() => import("@/features/desk").then((m) => ({ default: m.BankPage })));
const loadBalance = () => import("./Balance").then((m) => ({ default: m.Balance }));
const Balance = lazy(loadBalance);

/** The address says what is open: "/" the list, "/p/ID" a project. */
function usePath(): [string, (path: string) => void] {
  const [path, setPath] = useState(location.pathname);
  useEffect(() => {
    const onPop = () => setPath(location.pathname);
    window.addEventListener("popstate", onPop);
    return () => window.removeEventListener("popstate", onPop);
  }, []);
  const go = useCallback((next: string) => {
    history.pushState(null, "", next);
    setPath(next);
  }, []);
  return [path, go];
}

export function App() {
  const client = useQueryClient();
  const [path, go] = usePath();
  const { data: session, error } = useQuery({
    queryKey: ["session"],
    queryFn: api.session,
    staleTime: Infinity,
  });
  const close = useCallback(() => go("/"), [go]);
  const open = useCallback(
    (id: string) => {
      // Asked for at once, and not only when all that shows it is there.
      void client.prefetchQuery(openedMix(id));
      go(`/p/${id}`);
    },
    [client, go],
  );
  const signedIn = Boolean(session?.user);
  useEffect(() => {
    // While somebody looks for a project, what shows one is made ready.
    if (!signedIn) return;
    const idle = setTimeout(() => void loadBalance(), 100);
    return () => clearTimeout(idle);
  }, [signedIn]);
  const renewed = useCallback(() => client.invalidateQueries({ queryKey: ["session"] }), [client]);
  const [, door, token = ""] = /^\/(join|new-password|post-box)(?:\/([\w-]+))?$/.exec(path) ?? [];
  const project = /^\/p\/([0-9a-f-]{36})$/.exec(path)?.[1];
  if (error) {
    return (
      <p role="alert" className="p-8">
        {error instanceof ApiError
          ? error.message
          : "Wattage cannot be reached. Reload the page in a moment."}
      </p>
    );
  }
  if (door === "post-box") return <PostBox />;
  if (!session) return null;
  if (door === "new-password") return <NewPassword token={token} onDone={close} />;
  if (door === "join") return <Join token={token} session={session} onSession={renewed} onOpen={open} />;
  if (!session.user) {
    return <SignIn onSignedIn={(signedIn) => client.setQueryData(["session"], signedIn)} />;
  }
  // The stand-in for a fader bank has a window of its own.
  if (location.hash === "#fader-bank") {
    return (
      <Suspense fallback={null}>
        <BankPage />
      </Suspense>
    );
  }
  if (project) {
    return (
      <Suspense fallback={null}>
        <Balance key={project} project={project} onClose={close} />
      </Suspense>
    );
  }
  const signOut = async () => {
    const ended = await api.signOut();
    client.setQueryData(["session"], ended);
    client.removeQueries({ predicate: (query) => query.queryKey[0] !== "session" });
  };
  return (
    <ProjectList
      account={<Account user={session.user} onChange={renewed} />}
      onOpen={open}
      onSignOut={() => void signOut()}
    />
  );
}
