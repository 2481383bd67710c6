/** Tasks in their order, but for each after all that it needs; what needs each other in a circle stays as it stood. */
export function inNeed<Task extends { readonly id: string; readonly needs: readonly string[] }>(
  tasks: readonly Task[],
): Task[] {
  const byId = new Map(tasks.map((task) => [task.id, task]));
  const placed = new Set<string>();
  const order: Task[] = [];
  const put = (task: Task) => {
    if (placed.has(task.id)) return;
    placed.add(task.id);
    for (const id of task.needs) {
      const needed = byId.get(id);
      if (needed !== undefined) put(needed);
    }
    order.push(task);
  };
  tasks.forEach(put);
  return order;
}
