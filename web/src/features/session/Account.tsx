import { CORE } from "@/preview/constants";
import { useMutation } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { Sheet } from "@/parts/Sheet";
import type { FormEvent } from "react";
import { api } from "@/api/client";
import type { Session } from "@/api/schema";
import { DoorField, LEAST_PASSWORD, Problem } from "./Door";

interface Props {
  user: NonNullable<Session["user"]>;
  onChange: () => Promise<unknown>;
}

/** One's own account: the name others see, the password, and being signed in elsewhere. */
export function Account({ user, onChange }: Props) {
  const rename = useMutation({ mutationFn: (name: string) => api.renameMe(name), onSuccess: onChange });
  const password = useMutation({
    mutationFn: (v: { current: string; next: string }) => api.changePassword(v.current, v.next),
    onSuccess: onChange,
  });
  const out = useMutation({ mutationFn: api.signOutEverywhere, onSuccess: onChange });
  const changePassword = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    const value = (name: string) => String(new FormData(form).get(name));
    password.mutate({ current: value("current"), next: value("next") }, { onSuccess: () => form.reset() });
  };
  return (
    <Dialog.Root>
      <Dialog.Trigger className="button button-quiet" title="Your account">
        {user.name}
      </Dialog.Trigger>
      <Sheet title="Your account" className="grid w-[420px] gap-5 overflow-y-auto">
        <form
          className="grid gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            rename.mutate(String(new FormData(event.currentTarget).get("name")));
          }}
        >
          <label className="grid gap-1">
            <span className="font-semibold">Name, as others see it</span>
            <span className="flex gap-2">
              <input
                className="field min-w-0 flex-1"
                name="name"
                required
                maxLength={CORE.longestName}
                defaultValue={user.name}
                autoComplete="name"
              />
              <button className="button">Rename</button>
            </span>
          </label>
          <p className="text-aside text-faint">{user.email}</p>
          <Problem error={rename.error} />
        </form>
        <form className="grid gap-3 border-t border-line pt-4" onSubmit={changePassword}>
          <DoorField
            label="Present password"
            name="current"
            type="password"
            autoComplete="current-password"
          />
          <DoorField
            label="New password"
            name="next"
            type="password"
            autoComplete="new-password"
            minLength={LEAST_PASSWORD}
          />
          <Problem error={password.error} />
          {password.isSuccess && <p role="status">It is changed; all other sessions have ended.</p>}
          <button className="button justify-self-start">Change the password</button>
        </form>
        <div className="grid gap-2 border-t border-line pt-4">
          <Problem error={out.error} />
          <button className="button justify-self-start" onClick={() => out.mutate()}>
            Sign out everywhere
          </button>
          <p className="text-aside text-faint">On this and all other machines.</p>
        </div>
      </Sheet>
    </Dialog.Root>
  );
}
