<?php

declare(strict_types=1);

namespace Wattage\App\Entity;

/** What a member may do: a viewer looks and listens, an editor changes the mix, an owner also the project itself. */
enum Role: string
{
    case Viewer = 'viewer';
    case Editor = 'editor';
    case Owner = 'owner';

    public function includes(self $needed): bool
    {
        $order = [self::Viewer, self::Editor, self::Owner];

        return array_search($this, $order, true) >= array_search($needed, $order, true);
    }

    /** As it stands in a sentence. */
    public function words(): string
    {
        return self::Viewer === $this ? 'a viewer' : "an {$this->value}";
    }
}
