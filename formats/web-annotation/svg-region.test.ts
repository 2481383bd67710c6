import { describe, expect, it } from 'vitest';
import { regionOfSvg } from './svg-region.ts';

const bounds = (path: string) => {
  const region = regionOfSvg(`<svg xmlns="http://www.w3.org/2000/svg"><path d="${path}"/></svg>`);
  return region === null
    ? null
    : [region.x, region.y, region.width, region.height].map((n) => Math.round(n * 10) / 10);
};

describe('the region of an SVG path', () => {
  it('holds arcs, also where flags and numbers run into one another', () => {
    // A circle of radius 25 around (35, 35), written at length and as compact as the standard allows.
    expect(bounds('M10 35 A 25 25 0 1 0 60 35 A 25 25 0 1 0 10 35 Z')).toEqual([10, 10, 50, 50]);
    expect(bounds('M10 35a25 25 0 1050 0a25 25 0 10-50 0z')).toEqual([10, 10, 50, 50]);
  });

  it('follows relative, short and axis steps', () => {
    expect(bounds('m10 10 h30v20H10z')).toEqual([10, 10, 30, 20]);
    expect(bounds('M0,0l10-5.5.5.5')).toEqual([0, -5.5, 10.5, 5.5]);
    expect(bounds('M0 0 C 0 10 10 10 10 0 S 20 -10 20 0')).toEqual([0, -10, 20, 20]);
  });

  it('is none where nothing is drawn, or it is no SVG', () => {
    expect(bounds('M10 10')).toBeNull();
    expect(bounds('url(javascript:alert(1))')).toBeNull();
    expect(regionOfSvg('<svg><path')).toBeNull();
  });
});
