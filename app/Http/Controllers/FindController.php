<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Requests\ActRequest;
use App\Reading\Find\Finder;
use Illuminate\Http\JsonResponse;

/** Whatever has a name here, by words. */
final readonly class FindController
{
    private const LONGEST = 200;

    public function __invoke(ActRequest $request, Finder $finder): JsonResponse
    {
        $words = mb_substr($request->query->getString('words'), 0, self::LONGEST);

        return new JsonResponse(['found' => $finder->find($words, $request->person())]);
    }
}
