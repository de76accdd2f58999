import { geoMercator, geoPath, type GeoPermissibleObjects } from 'd3-geo';

/** A Polygon or MultiPolygon of RFC 7946. */
export type Region =
    { type: 'Polygon'; coordinates: number[][][] } | { type: 'MultiPolygon'; coordinates: number[][][][] };

/** On a sphere a ring encloses what lies to the right of its way, so the RFC's are walked the other way round. */
const turned = (polygon: number[][][]): number[][][] => polygon.map((ring) => [...ring].reverse());
const spherical = (region: Region): GeoPermissibleObjects =>
    region.type === 'Polygon'
        ? { type: 'Polygon', coordinates: turned(region.coordinates) }
        : { type: 'MultiPolygon', coordinates: region.coordinates.map(turned) };

/** What the regions look like together, as paths that fill a surface of that size. */
export function drawn(regions: Region[], width: number, height: number): string[] {
    const objects = regions.map(spherical);
    const projection = geoMercator().fitExtent(
        [
            [2, 2],
            [width - 2, height - 2],
        ],
        {
            type: 'GeometryCollection',
            geometries: objects as never,
        },
    );
    const path = geoPath(projection).digits(1);
    return objects.map((object) => path(object) ?? '');
}

/** Where the name of each stands: in the middle of its largest part. */
export function centres(regions: Region[], width: number, height: number): [number, number][] {
    const objects = regions.map(spherical);
    const projection = geoMercator().fitExtent(
        [
            [2, 2],
            [width - 2, height - 2],
        ],
        { type: 'GeometryCollection', geometries: objects as never },
    );
    const path = geoPath(projection);
    return regions.map((region) => {
        const parts = region.type === 'Polygon' ? [region.coordinates] : region.coordinates;
        const objectsOf = parts.map((part) => spherical({ type: 'Polygon', coordinates: part }));
        const largest = objectsOf.reduce((best, each) => (path.area(each) > path.area(best) ? each : best));
        return path.centroid(largest);
    });
}
