// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace lagniappe::app::shaders {

// Light from a low sun and the sky, at the corners: faces are flat, and on software OpenGL every pixel pays for
// each operation of its shader.
inline constexpr const char* kLitVertex = R"(#version 330 core
layout(location = 0) in vec3 position;
layout(location = 1) in vec3 normal;
layout(location = 2) in vec4 colour;
uniform mat4 to_clip;
uniform mat4 to_scene;
uniform vec3 tint;
out vec3 paint;
void main() {
  vec3 n = normalize(mat3(to_scene) * normal);
  float sun = max(dot(n, vec3(0.4575, 0.8133, 0.3558)), 0.0);
  vec3 light = vec3(0.67, 0.6675, 0.66) + vec3(0.07, 0.0925, 0.11) * n.y + sun * vec3(0.34, 0.33, 0.306);
  paint = colour.rgb * tint * light;
  gl_Position = to_clip * (to_scene * vec4(position, 1.0));
})";

// Haze far away; 1 / gl_FragCoord.w is the distance along the look.
inline constexpr const char* kLitFragment = R"(#version 330 core
in vec3 paint;
uniform vec3 lamp;  // Share of the light that the theme leaves.
out vec4 pixel;
void main() {
  float near = gl_FragCoord.w * 90.0;
  float clear = min(near * near, 1.0);
  pixel = vec4(mix(vec3(0.925, 0.92, 0.89), paint, 0.25 + 0.75 * clear) * lamp, 1.0);
})";

inline constexpr const char* kLineVertex = R"(#version 330 core
layout(location = 0) in vec3 position;
layout(location = 1) in vec4 colour;
uniform mat4 to_clip;
uniform float fade;  // Distance in m at which half is left.
out vec4 paint;
out float far;
void main() {
  paint = colour;
  gl_Position = to_clip * vec4(position, 1.0);
  far = gl_Position.w / fade;
})";

inline constexpr const char* kLineFragment = R"(#version 330 core
in vec4 paint;
in float far;
uniform float strength;
out vec4 pixel;
void main() { pixel = vec4(paint.rgb, paint.a * strength / (1.0 + far * far * far)); })";

// Drawn as a net over the whole picture; the colours are at its knots.
inline constexpr const char* kSkyVertex = R"(#version 330 core
layout(location = 0) in vec3 position;
uniform vec3 forward;
uniform vec3 right;
uniform vec3 up;
out vec3 paint;
void main() {
  float h = normalize(forward + right * position.x + up * position.z).y;
  vec3 above = mix(vec3(0.925, 0.92, 0.89), vec3(0.80, 0.865, 0.885), smoothstep(0.0, 0.55, h));
  vec3 below = mix(vec3(0.925, 0.92, 0.89), vec3(0.85, 0.83, 0.78), smoothstep(0.0, -0.5, h));
  paint = h >= 0.0 ? above : below;
  gl_Position = vec4(position.x, position.z, 0.999999, 1.0);
})";

inline constexpr const char* kSkyFragment = R"(#version 330 core
in vec3 paint;
uniform vec3 lamp;
out vec4 pixel;
void main() { pixel = vec4(paint * lamp, 1.0); })";

inline constexpr const char* kShadowVertex = R"(#version 330 core
layout(location = 0) in vec3 position;
uniform mat4 to_clip;
out vec2 across;
void main() {
  across = position.xz;
  gl_Position = to_clip * vec4(position, 1.0);
})";

inline constexpr const char* kShadowFragment = R"(#version 330 core
in vec2 across;
uniform float strength;
out vec4 pixel;
void main() {
  float r = length(across);
  pixel = vec4(0.125, 0.19, 0.23, strength * (1.0 - smoothstep(0.25, 1.0, r)));
})";

}  // namespace lagniappe::app::shaders
