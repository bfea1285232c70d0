import { TypedField } from "@/parts/TypedField";
import { lengthOf } from "@/preview/parse";
import { useCanEdit, useMix, useMixStore } from "@/store/context";
import { looseChange } from "@/store/screen";

/** How long the ramps at the ends of a range are, and where they lie; a change that is still loose follows. */
export function RangeRamps() {
  const store = useMixStore();
  const canEdit = useCanEdit();
  const rate = useMix((s) => s.rate);
  const settings = useMix((s) => s.settings);
  const setRamp = async (text: string) => {
    const ramp = lengthOf(text, store.getState());
    if (ramp === null) {
      const why = `“${text}” is not a length. Type seconds (0.4) or frames (12f).`;
      store.getState().set({ notice: { kind: "error", text: why } });
      return false;
    }
    store.getState().set({ settings: { ...settings, ramp, rampChosen: true }, notice: null });
    const last = looseChange(store.getState());
    return last ? store.getState().edit({ ...last, ramp }, { instead: true }) : true;
  };
  const state = () => store.getState();
  return (
    <div className="mt-2 grid grid-cols-[auto_74px_1fr] items-center gap-2">
      <span className="text-faint">Ramps</span>
      <TypedField
        label="Ramps"
        shown={`${(settings.ramp / rate).toFixed(2)} s`}
        disabled={!canEdit}
        onCommit={setRamp}
      />
      <select
        className="field px-1 py-0.5 text-aside"
        aria-label="Where the ramps lie"
        disabled={!canEdit}
        value={settings.inside === null ? "itself" : settings.inside ? "inside" : "outside"}
        title="By itself: outside, so that a bed is down before the speech starts; inside where it lifts"
        onChange={(event) => {
          const chosen = event.target.value;
          const inside = chosen === "itself" ? null : chosen === "inside";
          state().set({ settings: { ...settings, inside } });
          const last = looseChange(state());
          if (last && inside !== null) void state().edit({ ...last, inside }, { instead: true });
        }}
      >
        <option value="itself">by itself</option>
        <option value="outside">outside it</option>
        <option value="inside">inside it</option>
      </select>
    </div>
  );
}
