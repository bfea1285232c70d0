import { useQuery } from "@tanstack/react-query";
import { api } from "@/api/client";
import { useMix } from "@/store/context";
import { Screen, useShowing } from "./Screen";

/** The picture of the moment, or in words why there is none. */
export function ShownPicture() {
  const project = useMix((s) => s.project.id);
  const showing = useShowing();
  const { data = [] } = useQuery({
    queryKey: ["sources", project],
    queryFn: () => api.sources(project),
    refetchInterval: (query) => (query.state.data?.some((s) => s.picture === "making") ? 1000 : false),
  });
  const state = data.find((s) => s.id === showing?.source)?.picture;
  return (
    <div className="relative aspect-video bg-black">
      {showing && state === "ready" ? (
        <Screen key={showing.source} picture={showing} />
      ) : (
        <p className="absolute inset-0 grid place-content-center px-4 text-center text-aside text-[#cfc8b8]">
          {!showing
            ? "No picture at this moment"
            : state === "failed"
              ? "The picture of this file cannot be shown"
              : "The picture is being made; the sound is ready"}
        </p>
      )}
    </div>
  );
}
