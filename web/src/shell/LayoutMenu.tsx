import { LayoutDashboard } from "lucide-react";
import { Menu, MenuItem, MenuLine, MenuTitle } from "@/parts/Menu";
import type { Room } from "./TopBar";
import type { Arrangement } from "./useArrangement";

interface Props {
  room: Room;
  arrangement: Arrangement;
  arrange: (change: (now: Arrangement) => Arrangement) => void;
  /** Goes to a view, and to a place of the panel there. */
  onGo: (room: Room, tab: string) => void;
}

/** Arrangements for three kinds of work, and what they are made of one by one. */
export function LayoutMenu({ room, arrangement, arrange, onGo }: Props) {
  const put = (to: Room, tab: string, panel: boolean, meter: boolean) => {
    arrange((now) => ({ meter, panel: { ...now.panel, [to]: panel } }));
    onGo(to, tab);
  };
  const panel = arrangement.panel[room];
  return (
    <Menu
      leads
      trigger={
        <button
          type="button"
          className="button button-quiet p-1.5"
          aria-label="Layout"
          title="Layout: for cutting levels, for riding, for checking"
        >
          <LayoutDashboard size={16} />
        </button>
      }
    >
      <MenuTitle>Layout for</MenuTitle>
      <MenuItem onSelect={() => put("balance", "clip", true, false)}>
        Levels: clips and their numbers
      </MenuItem>
      <MenuItem onSelect={() => put("desk", "clip", false, false)}>
        Riding: faders and the lane alone
      </MenuItem>
      <MenuItem onSelect={() => put("balance", "speech", true, true)}>
        Checking: speech and a large meter
      </MenuItem>
      <MenuLine />
      <MenuItem
        onSelect={() => arrange((now) => ({ ...now, panel: { ...now.panel, [room]: !now.panel[room] } }))}
      >
        {panel ? "Hide the panel here" : "Show the panel here"}
      </MenuItem>
      <MenuItem onSelect={() => arrange((now) => ({ ...now, meter: !now.meter }))}>
        {arrangement.meter ? "Hide the large meter" : "Show a large meter beside the clips"}
      </MenuItem>
    </Menu>
  );
}
