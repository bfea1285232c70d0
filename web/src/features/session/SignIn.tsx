import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "@/api/client";
import type { Session } from "@/api/schema";
import { Door, DoorField, Problem } from "./Door";

interface Props {
  onSignedIn: (session: Session) => void;
  /** What one signs in for, where it is not plain. */
  line?: string;
}

export function SignIn({ onSignedIn, line = "Speech above, everything else beneath." }: Props) {
  const [forgotten, setForgotten] = useState(false);
  const signIn = useMutation({
    mutationFn: ({ email, password }: { email: string; password: string }) => api.signIn(email, password),
    onSuccess: onSignedIn,
  });
  return (
    <Door line={line}>
      {forgotten ? (
        <Forgotten onBack={() => setForgotten(false)} />
      ) : (
        <form
          className="grid max-w-[320px] gap-4"
          onSubmit={(event) => {
            event.preventDefault();
            const form = new FormData(event.currentTarget);
            signIn.mutate({ email: String(form.get("email")), password: String(form.get("password")) });
          }}
        >
          <DoorField label="E-mail address" name="email" type="email" autoComplete="username" autoFocus />
          <DoorField label="Password" name="password" type="password" autoComplete="current-password" />
          <Problem error={signIn.error} />
          <button className="button button-main py-2" disabled={signIn.isPending}>
            Sign in
          </button>
          <button type="button" className="button button-quiet" onClick={() => setForgotten(true)}>
            Forgotten your password?
          </button>
        </form>
      )}
    </Door>
  );
}

/** Asks for a link by e-mail. Whether there is such an account is not told. */
function Forgotten({ onBack }: { onBack: () => void }) {
  const send = useMutation({ mutationFn: (email: string) => api.forgotten(email) });
  return (
    <form
      className="grid max-w-[320px] gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        send.mutate(String(new FormData(event.currentTarget).get("email")));
      }}
    >
      <DoorField label="E-mail address" name="email" type="email" autoComplete="username" autoFocus />
      <Problem error={send.error} />
      {send.isSuccess ? (
        <p role="status">
          If there is an account for this address, a link is on its way. It works once, within an hour.
        </p>
      ) : (
        <button className="button button-main py-2" disabled={send.isPending}>
          Send me a link
        </button>
      )}
      <button type="button" className="button button-quiet" onClick={onBack}>
        Back to signing in
      </button>
    </form>
  );
}
