interface Props {
  error: string | null;
  text: string;
  name: string;
  disabled: boolean;
  onDo: () => void;
}

/** What a plan comes to, in words, and the button that makes it. */
export function PlanFoot({ error, text, name, disabled, onDo }: Props) {
  return (
    <div className="flex items-center gap-3">
      <p className={`flex-1 text-aside ${error ? "text-trouble" : "text-faint"}`} role="status">
        {error ?? text}
      </p>
      <button
        type="button"
        className="button button-main"
        aria-disabled={disabled || error !== null}
        title={disabled ? text : undefined}
        onClick={() => !disabled && error === null && onDo()}
      >
        {name}
      </button>
    </div>
  );
}
