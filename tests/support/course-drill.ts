import { bramblewick } from "../../demo/bramblewick";
import { fennelStreet } from "../../demo/fennel-street";
import { lockkeepersHouse } from "../../demo/lockkeepers-house";
import { Study, type Suspect } from "@/core/diagnosis";
import { COURSE, makeDrill, trainingIndex, type CourseSite, type Drill, type Lesson } from "@/core/drills";
import { must } from "@/core/kernel";
import type { Plan } from "@/core/plan";

const PLANS: Readonly<Record<CourseSite, () => Plan>> = {
  house: lockkeepersHouse,
  practice: fennelStreet,
  works: bramblewick,
};
const studies = new Map<string, Study>();

/** The site of a lesson; what was worked out on it for one is kept for the next. */
function studyOf(lesson: Lesson): Study {
  const key = `${lesson.site} ${lesson.isCarried}`;
  const study = studies.get(key) ?? new Study(trainingIndex(PLANS[lesson.site](), lesson));
  studies.set(key, study);
  return study;
}

/** A drill of the course as it is played. */
export function courseDrill(number: number): Drill {
  const lesson = must(COURSE[number - 1], "a lesson");
  const study = studyOf(lesson);
  const accepts = (suspect: Suspect) => lesson.accepts(suspect, study.index);
  return must(
    makeDrill(study, { level: lesson.level, about: lesson.about, accepts }, 1000 + number),
    lesson.title,
  );
}
