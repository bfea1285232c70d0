import { X } from "lucide-react";
import type { Order } from "@/api/schema";
import { BITS, FORMATS, inFormat, KBPS, partOf, PARTS, RATES, withPart } from "./orders";

interface Props {
  number: number;
  order: Order;
  onChange: (order: Order) => void;
  onRemove: (() => void) | null;
}

/** One file of a recipe: what it is, which part of the programme, how loud. */
export function OrderRow({ number, order, onChange, onRemove }: Props) {
  const of = (what: string) => `${what} of file ${number}`;
  const isPart = partOf(order) !== "programme";
  return (
    <li className="flex items-start gap-2 rounded-lg border border-line bg-sheet px-2.5 py-2">
      <div className="flex min-w-0 flex-1 flex-wrap items-center gap-2">
        <span className="figure w-4 text-faint">{number}</span>
        <Choice
          label={of("Format")}
          value={order.format}
          options={FORMATS.map((f) => [f.format, f.name])}
          onChange={(format) => onChange(inFormat(order, format as Order["format"]))}
        />
        {BITS[order.format].length > 0 && (
          <Choice
            label={of("Bits")}
            value={String(order.bits ?? 24)}
            options={BITS[order.format].map((b) => [String(b), b === 32 ? "32 bit float" : `${b} bit`])}
            onChange={(bits) => onChange({ ...order, bits: Number(bits) as 16 | 24 | 32 })}
          />
        )}
        {KBPS[order.format].length > 0 && (
          <Choice
            label={of("Kilobits per second")}
            value={String(order.kbps ?? 128)}
            options={KBPS[order.format].map((k) => [String(k), `${k} kbit/s`])}
            onChange={(kbps) => onChange({ ...order, kbps: Number(kbps) })}
          />
        )}
        <Choice
          label={of("Rate")}
          value={String(order.rate ?? 48000)}
          options={RATES[order.format].map((r) => [String(r), `${r / 1000} kHz`])}
          onChange={(rate) => onChange({ ...order, rate: Number(rate) as 44100 | 48000 | 96000 })}
        />
        <Choice
          label={of("Channels")}
          value={String(order.channels ?? 2)}
          options={[
            ["2", "stereo"],
            ["1", "mono"],
          ]}
          onChange={(channels) => onChange({ ...order, channels: Number(channels) as 1 | 2 })}
        />
        <Choice
          label={of("Part")}
          value={partOf(order)}
          options={PARTS.map((p) => [p.value, p.name])}
          onChange={(part) => onChange(withPart(order, part))}
        />
        <TargetOf order={order} of={of} onChange={onChange} />
        {isPart && (
          <label
            className="flex min-h-6 items-center gap-1 text-aside"
            title="So that parts add up to the programme"
          >
            <input
              type="checkbox"
              checked={order.asProgramme ?? false}
              onChange={(event) => onChange({ ...order, asProgramme: event.target.checked })}
            />
            as in the whole
          </label>
        )}
      </div>
      {onRemove && (
        <button
          type="button"
          className="button button-quiet p-1"
          aria-label={`Remove file ${number}`}
          onClick={onRemove}
        >
          <X size={14} />
        </button>
      )}
    </li>
  );
}

const LOUDNESSES = [-14, -16, -18, -19, -20, -23, -24];
const PEAK = -1;

function TargetOf({
  order,
  of,
  onChange,
}: {
  order: Order;
  of: (what: string) => string;
  onChange: (order: Order) => void;
}) {
  const { target, ...rest } = order;
  const value = !target ? "project" : target.loudness == null ? "none" : String(target.loudness);
  const known = LOUDNESSES.map(String);
  const own = value !== "project" && value !== "none" && !known.includes(value) ? [value] : [];
  return (
    <Choice
      label={of("Target")}
      value={value}
      options={[
        ["project", "target of the project"],
        ["none", "as loud as it is"],
        ...[...own, ...known].map((k): [string, string] => [
          k,
          `${k.replace("-", "−")} LUFS, ${PEAK} dBTP`.replace("-1", "−1"),
        ]),
      ]}
      onChange={(next) =>
        onChange(
          next === "project"
            ? rest
            : next === "none"
              ? { ...rest, target: { loudness: null, truePeak: null } }
              : { ...rest, target: { loudness: Number(next), truePeak: target?.truePeak ?? PEAK } },
        )
      }
    />
  );
}

function Choice({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: string;
  options: [string, string][];
  onChange: (value: string) => void;
}) {
  return (
    <select
      className="field !w-auto py-0.5 text-aside"
      aria-label={label}
      value={value}
      onChange={(event) => onChange(event.target.value)}
    >
      {options.map(([one, name]) => (
        <option key={one} value={one}>
          {name}
        </option>
      ))}
    </select>
  );
}
