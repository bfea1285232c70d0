<?php

declare(strict_types=1);

// Turns single operators of the core around and sees whether a test notices: names what survives.
//   php tools/mutate.php ROOM [COUNT [SEED]]     ROOM: Curve, Edit, Ducking, Loudness or another one with tests of its own
// Nothing in the tree is changed: the class is loaded from a copy.

use Wattage\Tests\support\Mutants;

require __DIR__.'/../vendor/autoload.php';

[, $room, $count, $seed] = [...$argv, '40', '1'];
$mutants = Mutants::of($room, (int) $seed);
$survived = [];
$tried = 0;
foreach ($mutants->some((int) $count) as $mutant) {
    ++$tried;
    if (!$mutants->isNoticed($mutant)) {
        $survived[] = $mutant->place();
        echo "survived: {$mutant->place()}\n";
    }
}
printf("%s: %d of %d noticed, %d survived\n", $room, $tried - count($survived), $tried, count($survived));
