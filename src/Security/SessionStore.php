<?php

declare(strict_types=1);

namespace Wattage\App\Security;

use SensitiveParameter;
use Symfony\Component\HttpFoundation\Session\Storage\Handler\PdoSessionHandler;

/**
 * Sessions in PostgreSQL. Their own data says since when they are in use, and is written anew every ten minutes (framework.yaml); a
 * screen asks a hundred times in that time, and nothing has to be written down for that.
 */
final class SessionStore extends PdoSessionHandler
{
    public function updateTimestamp(#[SensitiveParameter] string $sessionId, string $data): bool
    {
        return true;
    }
}
