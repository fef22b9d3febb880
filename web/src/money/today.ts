// How the corner stands today, as free moves count it.
import { api, type PatchStep, type Plan } from "../api/client";

/** Today's things over the plan. */
export function standing(plan: Plan): Plan["layout"] {
  const { today } = plan.brief;
  if (!today) return plan.layout;
  return {
    seat: today.seat ?? plan.layout.seat,
    camera: today.camera ?? plan.layout.camera,
    lights: today.lights ?? {},
    ...(today.microphone ? { microphone: today.microphone } : {}),
    ...(today.furniture && Object.keys(today.furniture).length > 0 ? { furniture: today.furniture } : {}),
  };
}

/** A move made in the room: what stands today has changed, and the plan with it where it showed just that. */
export async function moved(plan: Plan, patch: PatchStep[]): Promise<Plan> {
  const stood = standing(plan);
  const now = await api.apply({ ...plan, layout: stood }, patch);
  const planned = JSON.stringify(stood) === JSON.stringify(plan.layout);
  return {
    ...plan,
    brief: { ...plan.brief, today: now.layout },
    layout: planned ? now.layout : plan.layout,
  };
}
