<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Cache;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\Yaml\Yaml;

/** What can be asked of the API, as a page and as the document that it is drawn from. */
final class ReferenceController
{
    /** The page draws itself with styles of its own making; it shows nobody's data and sends nothing. */
    private const POLICY = "default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; "
        ."img-src 'self' data:; font-src 'self'; connect-src 'self'; base-uri 'none'; form-action 'none'; "
        ."frame-ancestors 'none'";

    public function page(): Response
    {
        return response()->view('reference', [], 200, ['Content-Security-Policy' => self::POLICY]);
    }

    /** A format that the document points to, beside it as in the folder of the documents. */
    public function format(string $format): BinaryFileResponse
    {
        $file = base_path("docs/formats/{$format}.schema.json");
        abort_unless(is_file($file), 404);

        return response()->file($file, ['Content-Type' => 'application/schema+json']);
    }

    public function document(): JsonResponse
    {
        $file = base_path('docs/openapi.yaml');
        $json = Cache::rememberForever('reference:'.filemtime($file), static fn (): string => json_encode(
            Yaml::parseFile($file, Yaml::PARSE_OBJECT_FOR_MAP),
            JSON_THROW_ON_ERROR,
        ));

        return new JsonResponse($json, 200, ['Cache-Control' => 'public, max-age=300'], json: true);
    }
}
