/** A small button that stays pressed. */
export function Toggle({
  pressed,
  label,
  hint,
  disabled = false,
  onClick,
  children,
}: {
  pressed: boolean;
  label: string;
  hint?: string;
  disabled?: boolean;
  onClick: (event: React.MouseEvent) => void;
  children: string;
}) {
  return (
    <button
      type="button"
      aria-pressed={pressed}
      aria-label={label}
      title={hint ? `${label} · ${hint}` : label}
      disabled={disabled}
      onClick={onClick}
      className="size-6 shrink-0 cursor-pointer rounded border border-line bg-sheet text-note font-semibold aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-paper"
    >
      {children}
    </button>
  );
}
