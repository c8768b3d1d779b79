// SPDX-License-Identifier: MIT
// Everything of the core.
#pragma once

#include "lagniappe/capsule_queries.h"
#include "lagniappe/character_state.h"
#include "lagniappe/course.h"
#include "lagniappe/drive.h"
#include "lagniappe/files.h"
#include "lagniappe/fixed_step_clock.h"
#include "lagniappe/input_frame.h"
#include "lagniappe/ledger.h"
#include "lagniappe/profile.h"
#include "lagniappe/profile_fields.h"
#include "lagniappe/result.h"
#include "lagniappe/shapes.h"
#include "lagniappe/step.h"
#include "lagniappe/triangle_world.h"
#include "lagniappe/vector.h"
#include "lagniappe/world.h"
