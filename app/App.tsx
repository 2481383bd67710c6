import { createBrowserRouter, RouterProvider } from 'react-router';
import { Fault } from './frame/Fault.tsx';
import { Frame } from './frame/Frame.tsx';
import { Arrivals } from './places/arrivals/Arrivals.tsx';

/** Every place has an address. Places beyond the first screen load when they are opened. */
const router = createBrowserRouter([
  {
    element: <Frame />,
    errorElement: <Fault />,
    children: [
      { index: true, element: <Arrivals /> },
      {
        path: 'standing/:courseId?',
        lazy: async () => ({ Component: (await import('./places/standing/Standing.tsx')).Standing }),
      },
      {
        path: 'standing/new',
        lazy: async () => ({ Component: (await import('./places/standing/CourseForm.tsx')).NewCourse }),
      },
      {
        path: 'standing/take-in',
        lazy: async () => ({ Component: (await import('./places/standing/TakeInGrades.tsx')).TakeInGrades }),
      },
      {
        path: 'standing/:courseId/edit',
        lazy: async () => ({ Component: (await import('./places/standing/CourseForm.tsx')).EditCourse }),
      },
      {
        path: 'standing/:courseId/add',
        lazy: async () => ({
          Component: (await import('./places/assignment/AssignmentForm.tsx')).NewAssignment,
        }),
      },
      { path: 'week', lazy: async () => ({ Component: (await import('./places/week/Week.tsx')).Week }) },
      {
        path: 'did-it-work',
        lazy: async () => ({ Component: (await import('./places/learn/Learning.tsx')).Learning }),
      },
      { path: 'ask', lazy: async () => ({ Component: (await import('./places/ask/Asking.tsx')).Asking }) },
      { path: 'shelf', lazy: async () => ({ Component: (await import('./places/shelf/Shelf.tsx')).Shelf }) },
      {
        path: 'coming-in',
        lazy: async () => ({ Component: (await import('./places/read/ComingIn.tsx')).ComingIn }),
      },
      {
        path: 'settings',
        lazy: async () => ({ Component: (await import('./places/settings/Settings.tsx')).Settings }),
      },
      {
        path: 'marks',
        lazy: async () => ({ Component: (await import('./places/marks/Marks.tsx')).Marks }),
      },
      {
        path: 'a/:assignmentId',
        lazy: async () => ({
          Component: (await import('./frame/AssignmentLayout.tsx')).AssignmentLayout,
        }),
        children: [
          {
            index: true,
            lazy: async () => ({ Component: (await import('./places/assignment/Overview.tsx')).Overview }),
          },
          {
            path: 'read',
            lazy: async () => ({ Component: (await import('./places/read/Reading.tsx')).Reading }),
          },
          {
            path: 'decide',
            lazy: async () => ({ Component: (await import('./places/decide/Deciding.tsx')).Deciding }),
          },
          {
            path: 'plan',
            lazy: async () => ({ Component: (await import('./places/plan/Planning.tsx')).Planning }),
          },
          {
            path: 'revise',
            lazy: async () => ({ Component: (await import('./places/revise/Revising.tsx')).Revising }),
          },
          {
            path: 'check',
            lazy: async () => ({ Component: (await import('./places/check/Checking.tsx')).Checking }),
          },
          {
            path: 'edit',
            lazy: async () => ({
              Component: (await import('./places/assignment/AssignmentForm.tsx')).EditAssignment,
            }),
          },
          {
            path: 'score',
            lazy: async () => ({ Component: (await import('./places/assignment/ScoreForm.tsx')).ScoreForm }),
          },
          {
            path: 'rubric',
            lazy: async () => ({
              Component: (await import('./places/read/rubric/RubricEditor.tsx')).RubricEditor,
            }),
          },
          {
            path: 'overlap',
            lazy: async () => ({ Component: (await import('./places/overlap/Overlap.tsx')).OverlapPlace }),
          },
          {
            path: 'response',
            lazy: async () => ({
              Component: (await import('./places/response/Responding.tsx')).Responding,
            }),
          },
          {
            path: 'take',
            lazy: async () => ({ Component: (await import('./places/take/TakeAlong.tsx')).TakeAlong }),
          },
          {
            path: 'send',
            lazy: async () => ({ Component: (await import('./places/send/Sending.tsx')).Sending }),
          },
        ],
      },
      { path: '*', element: <Arrivals /> },
    ],
  },
]);

export function App() {
  return <RouterProvider router={router} />;
}
