import { useMutation, useQuery } from "@tanstack/react-query";
import { api } from "@/api/client";
import type { Session } from "@/api/schema";
import { Door, DoorField, LEAST_PASSWORD, Problem } from "./Door";
import { SignIn } from "./SignIn";

interface Props {
  token: string;
  session: Session;
  onSession: () => Promise<unknown>;
  onOpen: (project: string) => void;
}

/** Where the link of an invitation leads: somebody new makes an account, others sign in; then the project opens. */
export function Join({ token, session, onSession, onOpen }: Props) {
  const offer = useQuery({
    queryKey: ["join", token],
    queryFn: () => api.joinOffer(token),
    retry: false,
    staleTime: Infinity,
  });
  const join = useMutation({
    mutationFn: (account: { name?: string; password?: string }) => api.join(token, account),
    onSuccess: async ({ project }) => {
      await onSession();
      onOpen(project);
    },
  });
  const signOut = useMutation({ mutationFn: api.signOut, onSuccess: onSession });
  if (offer.error)
    return (
      <Door line="An invitation">
        <Problem error={offer.error} />
        <a className="button mt-4 max-w-[320px]" href="/">
          To the projects
        </a>
      </Door>
    );
  if (!offer.data) return null;
  const { project, invitedBy, email, role, hasAccount } = offer.data;
  const line = `${invitedBy} invites you to “${project}”, as ${role}.`;
  const user = session.user;
  if (user)
    return (
      <Door line={line}>
        <div className="grid max-w-[320px] gap-4">
          <Problem error={join.error} />
          {user.email === email ? (
            <button className="button button-main py-2" onClick={() => join.mutate({})}>
              Join as {user.name}
            </button>
          ) : (
            <>
              <p>
                The invitation is for {email}, and you are signed in as {user.email}.
              </p>
              <button className="button" onClick={() => signOut.mutate()}>
                Sign out first
              </button>
            </>
          )}
        </div>
      </Door>
    );
  if (hasAccount)
    return <SignIn line={`${line} Sign in as ${email} to join.`} onSignedIn={() => void onSession()} />;
  return (
    <Door line={line}>
      <form
        className="grid max-w-[320px] gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          const form = new FormData(event.currentTarget);
          join.mutate({ name: String(form.get("name")), password: String(form.get("password")) });
        }}
      >
        <p className="text-faint">An account for {email}:</p>
        <DoorField label="Your name, as others see it" name="name" autoComplete="name" autoFocus />
        <DoorField
          label="A password"
          name="password"
          type="password"
          autoComplete="new-password"
          minLength={LEAST_PASSWORD}
        />
        <Problem error={join.error} />
        <button className="button button-main py-2" disabled={join.isPending}>
          Join
        </button>
      </form>
    </Door>
  );
}
