import type { CourseSite } from "@/core/drills";

// The sites that the course is played in: they come with the application, and none of them is in its database.

/** The plan file of a site of the course, as its text form. */
export async function courseFile(site: CourseSite): Promise<unknown> {
  if (site === "house") return (await import("../../demo/lockkeepers-house.json")).default;
  if (site === "practice") return (await import("../../demo/fennel-street.json")).default;
  return (await import("../../demo/bramblewick.json")).default;
}
