// core/composite/coverage.ts for a shader: VALUE holds what coverageValues writes, from COVER on.
import { LUMA_B, LUMA_G, LUMA_R } from '../../core/colour/luma.ts'
import type { Item } from '../../core/plan/frame-plan.ts'

/** Numbers that a coverage takes. */
export const COVERAGE_VALUES = 26

/** Writes an item's coverage into `values` from `at` on; COVERAGE_VALUES numbers. */
export function coverageValues({ coverage, toCoverage, opacity }: Item, values: Float32Array, at: number): void {
  const { shape, strokePx, sigmaPx, hole, reveal } = coverage
  values.set([toCoverage.a, toCoverage.b, toCoverage.c, toCoverage.d, toCoverage.e, toCoverage.f], at)
  values[at + 6] = shape.kind === 'roundedRect' ? 0 : 1
  values[at + 7] = shape.width
  values[at + 8] = shape.height
  values[at + 9] = shape.kind === 'roundedRect' ? shape.cornerRadius : shape.exponent
  values[at + 10] = strokePx ?? -1
  values[at + 11] = sigmaPx
  values[at + 12] = hole === null ? 0 : 1
  values[at + 13] = hole?.dx ?? 0
  values[at + 14] = hole?.dy ?? 0
  values[at + 15] = opacity
  values[at + 16] = reveal === null ? 0 : reveal.kind === 'edge' ? 1 : 2
  if (reveal?.kind === 'edge') values.set([reveal.a, reveal.b, reveal.c], at + 17)
  if (reveal?.kind === 'luma') {
    const { a, b, c, d, e, f } = reveal.toNode
    values.set([reveal.level, reveal.slope, 0, a, b, c, d, e, f], at + 17)
  }
}

/** Defines `float covered(vec2 p)`: the share of the pixel whose centre is p, by VALUE from COVER on; t2 is what a luma reveal reads. */
export const coverageGlsl = `
struct Edge { float distance; vec2 normal; float curvature; };
struct Form { float kind; vec2 size; float bend; };

Edge edgeOf(Form form, vec2 p) {
  vec2 middle = form.size / 2.0;
  vec2 off = p - middle;
  vec2 q = abs(off);
  Edge edge;
  if (form.kind == 0.0) {
    float radius = min(form.bend, min(middle.x, middle.y));
    vec2 d = q - (middle - radius);
    if (d.x > 0.0 && d.y > 0.0) {
      float far = length(d);
      edge = Edge(far - radius, d / far, 1.0 / far);
    } else {
      bool isSide = d.x > d.y;
      edge = Edge((isSide ? d.x : d.y) - radius, isSide ? vec2(1.0, 0.0) : vec2(0.0, 1.0), 0.0);
    }
  } else {
    float n = form.bend;
    vec2 parts = vec2(q.x == 0.0 ? 0.0 : pow(q.x / middle.x, n), q.y == 0.0 ? 0.0 : pow(q.y / middle.y, n));
    float sum = parts.x + parts.y;
    if (sum < 1e-12) {
      edge = Edge(-min(middle.x, middle.y), middle.x <= middle.y ? vec2(1.0, 0.0) : vec2(0.0, 1.0), 0.0);
    } else {
      float root = pow(sum, 1.0 / n);
      vec2 first = vec2(q.x == 0.0 ? 0.0 : n * parts.x / q.x, q.y == 0.0 ? 0.0 : n * parts.y / q.y);
      vec2 second = vec2(
        q.x == 0.0 ? (n == 2.0 ? 2.0 / (middle.x * middle.x) : 0.0) : (n - 1.0) * first.x / q.x,
        q.y == 0.0 ? (n == 2.0 ? 2.0 / (middle.y * middle.y) : 0.0) : (n - 1.0) * first.y / q.y
      );
      vec2 slope = first * (root / sum / n);
      float steep = length(slope);
      edge = Edge((root - 1.0) / steep, slope / steep, (second.x * first.y * first.y + second.y * first.x * first.x) / pow(length(first), 3.0));
    }
  }
  if (off.x < 0.0) edge.normal.x = -edge.normal.x;
  if (off.y < 0.0) edge.normal.y = -edge.normal.y;
  return edge;
}

float halfPlane(float distance, vec2 normal) {
  float a = abs(normal.x);
  float b = abs(normal.y);
  float reach = (a + b) / 2.0;
  if (distance >= reach) return 0.0;
  if (distance <= -reach) return 1.0;
  if (abs(distance) <= abs(a - b) / 2.0) return 0.5 - distance / max(a, b);
  float corner = (reach - abs(distance)) * (reach - abs(distance)) / (2.0 * a * b);
  return distance < 0.0 ? 1.0 - corner : corner;
}

float turnedShare(Edge edge, vec2 turn, float size) {
  float distance = edge.distance + edge.curvature * size * size / 24.0;
  return halfPlane(distance / size, vec2(edge.normal.x * turn.x - edge.normal.y * turn.y, edge.normal.x * turn.y + edge.normal.y * turn.x));
}

bool isStraightAt(Form form, vec2 p) {
  float shorter = min(form.size.x, form.size.y);
  if (shorter < 2.0) return false;
  vec2 fromCorner = form.size / 2.0 - abs(p - form.size / 2.0);
  if (form.kind != 0.0) return shorter > 20.0;
  float radius = min(form.bend, shorter / 2.0);
  return radius > 5.0 || max(fromCorner.x, fromCorner.y) > radius + 1.0;
}

float shapeShare(Form form, vec2 p, vec2 turn) {
  Edge edge = edgeOf(form, p);
  if (edge.distance > 0.75) return 0.0;
  if (edge.distance < -0.75) return 1.0;
  if (isStraightAt(form, p)) return turnedShare(edge, turn, 1.0);
  float sum = 0.0;
  for (int row = 0; row < 8; row += 1) {
    for (int column = 0; column < 8; column += 1) {
      vec2 off = (vec2(column, row) + 0.5) / 8.0 - 0.5;
      sum += turnedShare(edgeOf(form, p + vec2(off.x * turn.x + off.y * turn.y, -off.x * turn.y + off.y * turn.x)), turn, 0.125);
    }
  }
  return sum / 64.0;
}

// Abramowitz and Stegun 7.1.26, as core/composite/shadow.ts has it.
float errorFunction(float x) {
  float t = 1.0 / (1.0 + 0.3275911 * abs(x));
  float poly = ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t;
  float value = 1.0 - poly * exp(-x * x);
  return x < 0.0 ? -value : value;
}

float halfWidthAt(Form form, float row) {
  float side = form.size.x / 2.0;
  if (form.kind != 0.0) {
    float down = abs(row / (form.size.y / 2.0) - 1.0);
    return down >= 1.0 ? 0.0 : side * pow(1.0 - (down == 0.0 ? 0.0 : pow(down, form.bend)), 1.0 / form.bend);
  }
  float radius = min(form.bend, min(side, form.size.y / 2.0));
  float into = radius - min(row, form.size.y - row);
  return into <= 0.0 ? side : side - radius + sqrt(max(0.0, radius * radius - into * into));
}

float softShare(Form form, vec2 p, float sigma) {
  float top = max(0.0, p.y - 4.0 * sigma);
  float bottom = min(form.size.y, p.y + 4.0 * sigma);
  if (bottom <= top) return 0.0;
  float across = p.x - form.size.x / 2.0;
  float scale = 1.0 / (1.4142135623730951 * sigma);
  float sum = 0.0;
  float rowSpan = (bottom - top) / 2.0;
  for (int i = 0; i < 24; i += 1) {
    float from = top + rowSpan * (1.0 - cos(3.141592653589793 * float(i) / 24.0));
    float to = top + rowSpan * (1.0 - cos(3.141592653589793 * float(i + 1) / 24.0));
    float side = halfWidthAt(form, top + rowSpan * (1.0 - cos(3.141592653589793 * (float(i) + 0.5) / 24.0)));
    sum += (errorFunction((to - p.y) * scale) - errorFunction((from - p.y) * scale)) * (errorFunction((across + side) * scale) - errorFunction((across - side) * scale));
  }
  return sum / 4.0;
}

float covered(vec2 p) {
  vec2 at = vec2(VALUE[COVER] * p.x + VALUE[COVER + 2] * p.y + VALUE[COVER + 4], VALUE[COVER + 1] * p.x + VALUE[COVER + 3] * p.y + VALUE[COVER + 5]);
  vec2 turn = vec2(VALUE[COVER], VALUE[COVER + 2]);
  Form form = Form(VALUE[COVER + 6], vec2(VALUE[COVER + 7], VALUE[COVER + 8]), VALUE[COVER + 9]);
  float stroke = VALUE[COVER + 10];
  float sigma = VALUE[COVER + 11];
  float share = sigma > 0.0 ? softShare(form, at, sigma) : shapeShare(form, at, turn);
  if (share > 0.0 && stroke >= 0.0) {
    Form inner = Form(form.kind, form.size - 2.0 * stroke, form.kind == 0.0 ? max(0.0, form.bend - stroke) : form.bend);
    if (inner.size.x > 0.0 && inner.size.y > 0.0) share -= shapeShare(inner, at - stroke, turn);
  }
  if (share > 0.0 && VALUE[COVER + 12] == 1.0) share *= 1.0 - shapeShare(form, at - vec2(VALUE[COVER + 13], VALUE[COVER + 14]), turn);
  if (VALUE[COVER + 16] == 1.0) share *= clamp(VALUE[COVER + 17] * p.x + VALUE[COVER + 18] * p.y + VALUE[COVER + 19], 0.0, 1.0);
  if (VALUE[COVER + 16] == 2.0) {
    vec2 place = vec2(VALUE[COVER + 20] * p.x + VALUE[COVER + 22] * p.y + VALUE[COVER + 24], VALUE[COVER + 21] * p.x + VALUE[COVER + 23] * p.y + VALUE[COVER + 25]);
    float luma = dot(between(t2, place - 0.5).rgb, vec3(${LUMA_R}, ${LUMA_G}, ${LUMA_B}));
    share *= clamp((VALUE[COVER + 17] - luma) * VALUE[COVER + 18] + 0.5, 0.0, 1.0);
  }
  return clamp(share, 0.0, 1.0) * VALUE[COVER + 15];
}
`
