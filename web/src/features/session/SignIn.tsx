import { useMutation } from "@tanstack/react-query";
import { api } from "@/api/client";
import type { Session } from "@/api/types";
import { Horizon } from "./Horizon";

export function SignIn({ onSignedIn }: { onSignedIn: (session: Session) => void }) {
  const signIn = useMutation({
    mutationFn: ({ email, password }: { email: string; password: string }) => api.signIn(email, password),
    onSuccess: onSignedIn,
  });
  return (
    <main className="grid h-full grid-cols-[minmax(340px,2fr)_3fr] bg-paper max-md:grid-cols-1">
      <div className="flex flex-col justify-center px-12">
        <h1 className="mb-1 text-[34px] leading-none font-semibold tracking-tight">
          W<span className="text-copper">a</span>ttage
        </h1>
        <p className="mb-8 text-faint">Speech above, everything else beneath.</p>
        <form
          className="grid max-w-[320px] gap-4"
          onSubmit={(event) => {
            event.preventDefault();
            const form = new FormData(event.currentTarget);
            signIn.mutate({ email: String(form.get("email")), password: String(form.get("password")) });
          }}
        >
          <label className="grid gap-1">
            <span className="font-semibold">E-mail address</span>
            <input
              className="field py-2"
              name="email"
              type="email"
              autoComplete="username"
              required
              autoFocus
            />
          </label>
          <label className="grid gap-1">
            <span className="font-semibold">Password</span>
            <input
              className="field py-2"
              name="password"
              type="password"
              autoComplete="current-password"
              required
            />
          </label>
          {signIn.error && (
            <p role="alert" className="rounded-md bg-trouble-sheet px-3 py-2 text-trouble">
              {signIn.error.message}
            </p>
          )}
          <button className="button button-main py-2" disabled={signIn.isPending}>
            Sign in
          </button>
        </form>
      </div>
      <Horizon />
    </main>
  );
}
