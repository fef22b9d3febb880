// The floor and the door to the phone.
import { accepted, client } from "./ask";
import type { Plan, Schemas } from "./client";

export const floorApi = {
  /** A corner in the steps in which it is laid, and what is ticked of them. */
  laying: async (id: number) =>
    accepted(await client.GET("/api/v1/corners/{id}/laying", { params: { path: { id } } })),
  /** Sends ticks, or none to hear of those of others. */
  tick: async (id: number, ticks: Omit<Schemas["Tick"], "by">[]) =>
    accepted(await client.POST("/api/v1/corners/{id}/ticks", { params: { path: { id } }, body: { ticks } })),
  /** How it was really laid. */
  laid: async (plan: Plan, got: Schemas["Got"][]) =>
    accepted(await client.POST("/api/v1/laid", { body: { plan, got } })),
  /** How soon it stands, where stands are put away, which plug goes where. */
  ready: async (plan: Plan) => accepted(await client.POST("/api/v1/ready", { body: plan })),
  /** The door to the phone. */
  door: async () => accepted(await client.GET("/api/v1/phone")),
  openDoor: async () => accepted(await client.POST("/api/v1/phone")),
  shutDoor: async () => accepted(await client.DELETE("/api/v1/phone")),
  putOut: async (number: number) =>
    accepted(await client.DELETE("/api/v1/phone/{number}", { params: { path: { number } } })),
  pair: async (code: string) => accepted(await client.POST("/api/v1/phone/pair", { body: { code } })),
  toLay: async () => accepted(await client.GET("/api/v1/phone/corners")),
};
