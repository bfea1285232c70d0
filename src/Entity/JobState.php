<?php

declare(strict_types=1);

namespace Wattage\App\Entity;

enum JobState: string
{
    case Waiting = 'waiting';
    case Running = 'running';
    case Done = 'done';
    case Failed = 'failed';
    case Cancelled = 'cancelled';

    public function isOver(): bool
    {
        return \in_array($this, [self::Done, self::Failed, self::Cancelled], true);
    }
}
