import { Tabs } from "radix-ui";
import { memo, type ReactNode } from "react";

interface Props {
  tab: string;
  onTab: (tab: string) => void;
  picture: ReactNode;
  levels: ReactNode;
  sources: ReactNode;
  speech: ReactNode;
  ducking: ReactNode;
  versions: ReactNode;
  markers: ReactNode;
}

export const Panel = memo(function Panel({
  tab,
  onTab,
  picture,
  levels,
  sources,
  speech,
  ducking,
  versions,
  markers,
}: Props) {
  const tabs = [
    ["clip", "Levels", levels],
    ["sources", "Sources", sources],
    ["speech", "Speech", speech],
    ["duck", "Ducking", ducking],
    ["markers", "Notes", markers],
  ] as const;
  return (
    <Tabs.Root
      value={tab}
      onValueChange={onTab}
      data-area="panel"
      className="flex min-h-0 min-w-0 flex-1 flex-col border-l border-line bg-paper"
    >
      {picture}
      <Tabs.List className="flex justify-between border-b border-line px-[8px]" aria-label="Panel">
        {tabs.map(([value, name]) => (
          <Tabs.Trigger
            key={value}
            value={value}
            className="cursor-pointer border-b-2 border-transparent px-[5px] py-2 text-aside font-semibold text-faint data-[state=active]:border-copper data-[state=active]:text-ink"
          >
            {name}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      {tabs.map(([value, , content]) => (
        <Tabs.Content key={value} value={value} className="min-h-0 flex-1 overflow-y-auto" tabIndex={-1}>
          {content}
        </Tabs.Content>
      ))}
      {/* Opened from the bar, beside undo. */}
      <Tabs.Content value="versions" className="min-h-0 flex-1 overflow-y-auto" tabIndex={-1}>
        {versions}
      </Tabs.Content>
    </Tabs.Root>
  );
});
