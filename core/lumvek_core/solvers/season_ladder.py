"""Making one thing of a season's plan least after the other, with what is told meanwhile."""

from collections.abc import Callable
from threading import Event, Thread

from ortools.sat.python import cp_model

from .season import SeasonModel
from .season_variables import Var

Told = Callable[[float, float], bool | None]
"""(the least found so far, no plan has less); answers whether that will do."""
TELLS_S = 0.5


class _Watch(cp_model.CpSolverSolutionCallback):
    """Tells now and then how far a search is, and ends it when that will do."""

    def __init__(self, solver: cp_model.CpSolver, found: float, told: Told) -> None:
        super().__init__()
        self.solver, self.found, self.bound, self.told = solver, found, 0.0, told
        self.over = Event()
        self.enough = False
        solver.best_bound_callback = self._bound

    def _bound(self, bound: float) -> None:
        self.bound = bound

    def on_solution_callback(self) -> None:
        self.found = self.objective_value

    def go(self) -> None:
        while not self.over.wait(TELLS_S):
            if self.told(self.found, self.bound):
                self.enough = True
                self.solver.stop_search()


class Ladder:
    """One thing made least after the other: what was reached is kept. enough: somebody said that what there is will do."""

    def __init__(self, model: SeasonModel) -> None:
        self.of, self.best, self.enough = model, model.draft, False
        self.hints = {variable.index: (variable, value) for variable, value in model.hints}

    def least(self, goal: Var, seconds: float, now: float, told: Told) -> tuple[int, int] | None:
        """The least of a goal found in so much time, and what no plan is under; None where nothing was found. It is held to
        from now on. now: what it is in the draft."""
        if isinstance(goal, int):
            return goal, goal
        model = self.of.model
        for variable, value in self.of.hints:
            self.hints.setdefault(variable.index, (variable, value))
        model.clear_hints()  # type: ignore[no-untyped-call]
        for variable, value in self.hints.values():
            model.add_hint(variable, value)
        model.minimize(goal)
        solver = cp_model.CpSolver()
        solver.parameters.max_time_in_seconds = max(seconds, 0.01)
        # One that begins at once, where little is to be looked through.
        solver.parameters.num_workers = 1 if len(self.of.free) <= 12 else 4
        if self.of.window:
            solver.parameters.symmetry_level = 0
            solver.parameters.cp_model_probing_level = 0
            solver.parameters.max_presolve_iterations = 1
        watch = _Watch(solver, now, told)
        telling = Thread(target=watch.go, daemon=True)
        telling.start()
        status = solver.solve(model, watch)
        watch.over.set()
        telling.join()
        self.enough = self.enough or watch.enough
        if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
            return None
        found, bound = round(solver.objective_value), round(solver.best_objective_bound)
        self.best = self.of.read(solver.value)
        self.hints = {index: (variable, solver.value(variable)) for index, (variable, _) in self.hints.items()}
        model.add(goal <= found)
        return found, bound
