<?php

declare(strict_types=1);

namespace Wattage\Core\Edit\Desk;

use Wattage\Core\Edit\Edit;
use Wattage\Core\Timeline\Mix;
use Wattage\Core\Timeline\Room;

/** Changes what the programme is to reach; no sound changes by it. */
final readonly class SetAim implements Edit
{
    /**
     * @param ?float $clearance LU; null leaves it
     * @param ?float $sensitivity dB
     * @param ?float $loudness LUFS
     * @param ?float $truePeak dBTP
     * @param ?float $clarity of 100
     */
    public function __construct(private ?float $clearance, private ?float $sensitivity, private ?float $loudness, private ?float $truePeak, private ?float $clarity = null, private ?Room $room = null)
    {
    }

    public function label(Mix $before): string
    {
        return 'Aim for '.implode(', ', array_filter([
            self::said($this->clearance, '%s LU of clearance'),
            self::said($this->sensitivity, 'speech at a sensitivity of %s dB'),
            self::said($this->loudness, '%s LUFS'),
            self::said($this->truePeak, '%s dBTP at most'),
            self::said($this->clarity, 'a clarity of %s'),
            null === $this->room ? null : 'being understood in '.$this->room->label(),
        ]));
    }

    public function apply(Mix $before): Mix
    {
        $aim = $before->aim->with($this->clearance, $this->sensitivity, $this->loudness, $this->truePeak, clarity: $this->clarity, room: $this->room);

        return $aim == $before->aim ? $before : $before->withAim($aim);
    }

    private static function said(?float $value, string $as): ?string
    {
        return null === $value ? null : \sprintf($as, str_replace('-', '−', rtrim(rtrim(\sprintf('%.1f', $value), '0'), '.')));
    }
}
