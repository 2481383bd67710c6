import { readFile } from 'node:fs/promises';
import { courseGrade } from '#core/scores/course-grade.ts';
import { courseOut, odditiesOf, readCourse, type CourseOut } from '#formats/course/read-course.ts';

/** Computes a course that a file describes, and tells what of it is odd. */
export async function grade(file: string): Promise<{ result: CourseOut; oddities: string[] }> {
  const course = readCourse(await readFile(file, 'utf8'));
  return { result: courseOut(courseGrade(course)), oddities: odditiesOf(course) };
}
