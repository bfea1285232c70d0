import { useMutation } from "@tanstack/react-query";
import { api } from "@/api/client";
import { Door, DoorField, LEAST_PASSWORD, Problem } from "./Door";

/** Where the link for a forgotten password leads. */
export function NewPassword({ token, onDone }: { token: string; onDone: () => void }) {
  const set = useMutation({ mutationFn: (password: string) => api.newPassword(token, password) });
  return (
    <Door line="Another password for your account. All who are signed in with the old one are signed out.">
      <form
        className="grid max-w-[320px] gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          set.mutate(String(new FormData(event.currentTarget).get("password")));
        }}
      >
        {!set.isSuccess && (
          <DoorField
            label="New password"
            name="password"
            type="password"
            autoComplete="new-password"
            minLength={LEAST_PASSWORD}
            autoFocus
          />
        )}
        <Problem error={set.error} />
        {set.isSuccess ? (
          <>
            <p role="status">It is set.</p>
            <button type="button" className="button button-main py-2" onClick={onDone}>
              Sign in
            </button>
          </>
        ) : (
          <button className="button button-main py-2" disabled={set.isPending}>
            Set it
          </button>
        )}
      </form>
    </Door>
  );
}
