<?php

declare(strict_types=1);

namespace App\Organisation;

use InvalidArgumentException;

/**
 * Regions out of a GeoJSON text (RFC 7946): their Polygons and MultiPolygons, checked ring by ring, with outer rings
 * counterclockwise as the RFC wants them, whatever way they came.
 */
final class GeoShapes
{
    public const MOST_BYTES = 4_000_000;

    private const MOST_POINTS = 100_000;

    /** Degrees are given to about a decimetre. */
    private const PLACES = 6;

    private const MOST_REGIONS = 3000;

    private int $points = 0;

    /**
     * @return list<array{names: list<string>, shape: array<string, mixed>, points: int}> each region with what its properties say
     *
     * @throws InvalidArgumentException with what is wrong, for whoever chose the file
     */
    public static function read(string $text): array
    {
        if (strlen($text) > self::MOST_BYTES) {
            throw new InvalidArgumentException('Up to 4 MB. Most programs for maps can leave out points that nobody sees.');
        }
        $data = json_decode($text, true, 32);
        $data = is_array($data) ? $data : [];
        $features = match ($data['type'] ?? null) {
            'FeatureCollection' => $data['features'] ?? null,
            'Feature' => [$data],
            default => null,
        };
        if (! is_array($features) || ! array_is_list($features)) {
            throw new InvalidArgumentException('This is no GeoJSON with features (RFC 7946).');
        }
        if (count($features) > self::MOST_REGIONS) {
            throw new InvalidArgumentException('Up to 3,000 regions.');
        }
        $reading = new self;
        $regions = [];
        foreach ($features as $at => $feature) {
            $regions[] = $reading->region($feature, $at + 1);
        }

        return $regions;
    }

    /** @return array{names: list<string>, shape: array<string, mixed>, points: int} */
    private function region(mixed $feature, int $at): array
    {
        $geometry = is_array($feature) ? $feature['geometry'] ?? null : null;
        $type = is_array($geometry) ? $geometry['type'] ?? null : null;
        $coordinates = is_array($geometry) ? $geometry['coordinates'] ?? null : null;
        if (! is_array($coordinates) || ! in_array($type, ['Polygon', 'MultiPolygon'], true)) {
            throw new InvalidArgumentException("Region {$at} is no Polygon and no MultiPolygon.");
        }
        $before = $this->points;
        $shape = ['type' => $type, 'coordinates' => $type === 'Polygon' ? $this->polygon($coordinates, $at) : array_map(fn (mixed $polygon): array => $this->polygon($polygon, $at), array_values($coordinates))];
        $names = [];
        $properties = is_array($feature['properties'] ?? null) ? $feature['properties'] : [];
        foreach ([$feature['id'] ?? null, ...array_values($properties)] as $value) {
            if ((is_string($value) || is_int($value)) && mb_strlen((string) $value) <= 200) {
                $names[] = trim((string) $value);
            }
        }

        return ['names' => array_values(array_unique(array_filter($names, fn (string $name): bool => $name !== ''))), 'shape' => $shape, 'points' => $this->points - $before];
    }

    /** @return list<list<array{float, float}>> */
    private function polygon(mixed $rings, int $at): array
    {
        if (! is_array($rings) || $rings === []) {
            throw new InvalidArgumentException("Region {$at} has a polygon without a ring.");
        }

        return array_map(fn (mixed $ring, int $place): array => $this->ring($ring, $place === 0, $at), array_values($rings), array_keys(array_values($rings)));
    }

    /** @return list<array{float, float}> */
    private function ring(mixed $ring, bool $isOuter, int $at): array
    {
        if (! is_array($ring) || count($ring) < 4) {
            throw new InvalidArgumentException("Region {$at} has a ring of fewer than four positions.");
        }
        $positions = array_map(fn (mixed $position): array => self::position($position, $at), array_values($ring));
        if ($positions[0] !== $positions[count($positions) - 1]) {
            throw new InvalidArgumentException("Region {$at} has a ring that does not end where it began.");
        }
        $this->points += count($positions);
        if ($this->points > self::MOST_POINTS) {
            throw new InvalidArgumentException('Up to 100,000 positions in all. Most programs for maps can leave out points that nobody sees.');
        }
        // Twice the area by the shoelace formula: above zero where it runs counterclockwise.
        $area = 0.0;
        foreach ($positions as $place => [$x, $y]) {
            [$nextX, $nextY] = $positions[($place + 1) % count($positions)];
            $area += $x * $nextY - $nextX * $y;
        }

        return ($area > 0) === $isOuter ? $positions : array_reverse($positions);
    }

    /** @return array{float, float} longitude and latitude */
    private static function position(mixed $position, int $at): array
    {
        [$longitude, $latitude] = is_array($position) ? [$position[0] ?? null, $position[1] ?? null] : [null, null];
        if ((! is_int($longitude) && ! is_float($longitude)) || (! is_int($latitude) && ! is_float($latitude)) || abs($longitude) > 180 || abs($latitude) > 90) {
            throw new InvalidArgumentException("Region {$at} has positions that are no degrees: RFC 7946 wants longitude and latitude (WGS 84).");
        }

        return [round($longitude, self::PLACES), round($latitude, self::PLACES)];
    }
}
