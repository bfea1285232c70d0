import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { X } from "lucide-react";
import { Dialog } from "radix-ui";
import { type FormEvent, useState } from "react";
import { api } from "@/api/client";
import { askedAgain } from "@/api/problem";
import type { Invitation, Member, Role } from "@/api/schema";
import { newId } from "@/lib/ids";
import { useMix } from "@/store/context";
import { RecordOfProject } from "./RecordOfProject";

const ROLES: { role: Role; may: string }[] = [
  { role: "viewer", may: "listens and comments" },
  { role: "editor", may: "changes the mix" },
  { role: "owner", may: "also shares, renames, deletes" },
];

interface Props {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}

/** Who works on the project and in which role; owners invite, change and remove, everybody may leave. */
export function Share({ open, onOpenChange }: Props) {
  const project = useMix((s) => s.project);
  const me = useMix((s) => s.me.id);
  const owns = project.role === "owner";
  const { data, error } = useQuery({
    queryKey: ["members", project.id],
    queryFn: () => api.members(project.id),
    enabled: open,
  });
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/35" />
        <Dialog.Content
          className="fixed top-[10vh] left-1/2 z-50 max-h-[80vh] w-[600px] max-w-[94vw] -translate-x-1/2 overflow-y-auto rounded-xl border border-line bg-paper p-5 shadow-2xl"
          aria-describedby={undefined}
          onKeyDown={(event) => event.stopPropagation()}
        >
          <div className="mb-3 flex items-center gap-3">
            <Dialog.Title className="min-w-0 flex-1 truncate text-title font-semibold">
              Who works on “{project.name}”
            </Dialog.Title>
            <Dialog.Close className="button button-quiet p-1" aria-label="Close">
              <X size={17} />
            </Dialog.Close>
          </div>
          {error && (
            <p role="alert" className="text-trouble">
              {error.message}
            </p>
          )}
          <ul aria-label="Members">
            {data?.members.map((member) => (
              <MemberRow key={member.account} member={member} owns={owns} isMe={member.account === me} />
            ))}
          </ul>
          {owns && (
            <>
              {data && data.invitations.length > 0 && (
                <>
                  <h3 className="caps mt-4 mb-1">Invited, not here yet</h3>
                  <ul aria-label="Invitations">
                    {data.invitations.map((invitation) => (
                      <InvitationRow key={invitation.id} invitation={invitation} />
                    ))}
                  </ul>
                </>
              )}
              <InviteForm />
              <RecordOfProject />
            </>
          )}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function useRefresh() {
  const queries = useQueryClient();
  const project = useMix((s) => s.project.id);
  return { onSettled: () => queries.invalidateQueries({ queryKey: ["members", project] }) };
}

function MemberRow({ member, owns, isMe }: { member: Member; owns: boolean; isMe: boolean }) {
  const project = useMix((s) => s.project.id);
  const refresh = useRefresh();
  const change = useMutation({
    mutationFn: (role: Role) => api.changeRole(project, member.account, role),
    ...refresh,
  });
  const remove = useMutation({
    mutationFn: () => api.removeMember(project, member.account),
    ...refresh,
    onSuccess: () => {
      if (isMe) location.assign("/");
    },
  });
  const [sure, setSure] = useState(false);
  const problem = change.error ?? remove.error;
  return (
    <li className="border-t border-line py-2">
      <div className="flex items-center gap-2">
        <div className="min-w-0 flex-1 leading-tight">
          <div className="truncate font-semibold">
            {member.name}
            {isMe && <span className="font-normal text-faint"> · you</span>}
          </div>
          {member.email && <div className="truncate text-aside text-faint">{member.email}</div>}
        </div>
        {owns ? (
          <RoleChoice
            label={`Role of ${member.name}`}
            role={member.role}
            onChange={(role) => change.mutate(role)}
          />
        ) : (
          <span className="text-faint">{member.role}</span>
        )}
        {(owns || isMe) && (
          <button
            type="button"
            className={`button px-2 py-0.5 ${sure ? "border-trouble text-trouble" : ""}`}
            onClick={() => (sure ? remove.mutate() : setSure(true))}
            onBlur={() => setSure(false)}
            aria-label={sure ? undefined : isMe ? "Leave the project" : `Remove ${member.name}`}
          >
            {sure ? (isMe ? "Yes, leave" : "Yes, remove") : isMe ? "Leave" : "Remove"}
          </button>
        )}
      </div>
      {problem && (
        <p role="alert" className="mt-1 text-aside text-trouble">
          {problem.message}
        </p>
      )}
    </li>
  );
}

function InvitationRow({ invitation }: { invitation: Invitation }) {
  const withdraw = useMutation({ mutationFn: () => api.withdraw(invitation.id), ...useRefresh() });
  const until = new Date(invitation.expiresAt).toLocaleDateString("en-GB", { day: "numeric", month: "long" });
  return (
    <li className="flex items-center gap-2 border-t border-line py-1.5">
      <span className="min-w-0 flex-1 truncate">{invitation.email}</span>
      <span className={invitation.expired ? "text-trouble" : "text-faint"}>
        {invitation.role} · {invitation.expired ? "too old, invite again" : `until ${until}`}
      </span>
      <button
        type="button"
        className="button px-2 py-0.5"
        aria-label={`Withdraw the invitation of ${invitation.email}`}
        onClick={() => withdraw.mutate()}
      >
        Withdraw
      </button>
    </li>
  );
}

function InviteForm() {
  const project = useMix((s) => s.project.id);
  const [role, setRole] = useState<Role>("editor");
  const invite = useMutation({
    mutationFn: ({ email, key }: { email: string; key: string }) => api.invite(project, email, role, key),
    ...askedAgain,
    ...useRefresh(),
  });
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    const email = String(new FormData(form).get("email"));
    invite.mutate({ email, key: newId("invite") }, { onSuccess: () => form.reset() });
  };
  return (
    <form className="mt-4 grid gap-2 border-t border-line pt-3" onSubmit={submit}>
      <h3 className="caps">Invite somebody</h3>
      <div className="flex gap-2">
        <input
          className="field w-auto min-w-0 flex-1"
          name="email"
          type="email"
          required
          maxLength={180}
          placeholder="E-mail address"
          aria-label="E-mail address"
        />
        <RoleChoice label="Role" role={role} onChange={setRole} />
        <button className="button button-main" disabled={invite.isPending}>
          Invite
        </button>
      </div>
      <p className="text-aside text-faint">
        {role}: {ROLES.find((r) => r.role === role)?.may}. Who has no account makes one by the link in the
        e-mail.
      </p>
      {invite.error && (
        <p role="alert" className="text-trouble">
          {invite.error.message}
        </p>
      )}
      {invite.data && <p role="status">{invite.data.email} is invited.</p>}
    </form>
  );
}

function RoleChoice(props: { label: string; role: Role; onChange: (role: Role) => void }) {
  return (
    <select
      className="field w-28 shrink-0 py-0.5"
      aria-label={props.label}
      value={props.role}
      onChange={(event) => props.onChange(event.target.value as Role)}
    >
      {ROLES.map(({ role, may }) => (
        <option key={role} value={role} title={may}>
          {role}
        </option>
      ))}
    </select>
  );
}
