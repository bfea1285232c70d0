import { useQuery } from "@tanstack/react-query";
import { api } from "@/api/client";

/** The simulated post box of the demo: all e-mail that would have gone out. */
export function PostBox() {
  const { data, error } = useQuery({ queryKey: ["post-box"], queryFn: api.letters, refetchInterval: 2000 });
  return (
    <main className="h-full overflow-y-auto px-8 py-6">
      <h1 className="text-page font-semibold">Post box</h1>
      <p className="mb-4 text-faint">
        A stand-in for everybody’s mail program: no e-mail leaves this machine, it is shown here.
      </p>
      {error && (
        <p role="alert" className="text-trouble">
          {error.message}
        </p>
      )}
      {data?.length === 0 && <p className="text-faint">Nothing was sent yet.</p>}
      <ul className="grid max-w-[760px] gap-3">
        {data?.map((letter) => (
          <li
            key={letter.at + letter.to + letter.subject}
            className="rounded-xl border border-line bg-sheet p-4"
          >
            <div className="flex gap-3 text-aside text-faint">
              <span className="min-w-0 flex-1 truncate">to {letter.to}</span>
              <span className="figure">{new Date(letter.at).toLocaleTimeString("en-GB")}</span>
            </div>
            <h2 className="mb-2 font-semibold">{letter.subject}</h2>
            <p className="break-words whitespace-pre-wrap">
              {letter.body.split(/(https?:\/\/\S+)/).map((part, i) =>
                i % 2 ? (
                  <a key={i} className="text-copper-text underline" href={new URL(part).pathname}>
                    {part}
                  </a>
                ) : (
                  part
                ),
              )}
            </p>
          </li>
        ))}
      </ul>
    </main>
  );
}
