"""The rules of the season's plan once more, hour by hour and without any of the planner's own code; and the best plan of a small
question, by trying all."""

import datetime as dt
from itertools import combinations
from math import ceil


def at(text):
    return dt.datetime.fromisoformat(text)


class Checker:
    """What a plan may be, for one question."""

    def __init__(self, given):
        self.given = given
        self.slot = dt.timedelta(minutes=given.get("slot_min", 15))
        self.now = at(given["now"])
        self.ends = self.now + dt.timedelta(days=given["horizon_days"])
        self.jobs = {job["id"]: job for job in given["jobs"]}
        self.machines = {one["name"]: one for one in given["machines"]}
        self.places = {one["name"]: one for one in given["places"]}
        self.people = {one["name"]: one for one in given["technicians"]}
        midnight = self.now.replace(hour=0, minute=0)
        grid, self.grid = midnight, []
        while grid + self.slot <= self.ends:
            if grid >= self.now:
                self.grid.append(grid)
            grid += self.slot
        self.on = {
            name: {one for one in self.grid if self.inside(one, person["shifts"])} for name, person in self.people.items()
        }
        self.anybody = sorted(set().union(*self.on.values()))
        self.dry = {one for one in self.grid if self.inside(one, given.get("dry", []))}

    def inside(self, slot, spans):
        return any(at(span["start"]) <= slot and slot + self.slot <= at(span["end"]) for span in spans)

    def worked_between(self, end, start):
        """Slots in which anybody works, from one moment to another."""
        return sum(end <= one and one + self.slot <= start for one in self.anybody)

    def slots(self, minutes):
        return ceil(minutes / (self.slot / dt.timedelta(minutes=1)) - 1e-9)

    def kinds(self, job):
        """The kind of place a job is done in."""
        machine, kind = self.machines[job["machine"]], job.get("place_kind", "bay")
        if kind == "bay" and not any(one["kind"] == "bay" and self.passes(machine, one) for one in self.places.values()):
            return "outside"
        return kind

    def passes(self, machine, place):
        pairs = [(machine.get(f"{what}_mm"), place.get(f"door_{what}_mm")) for what in ("width", "height")]
        return all(size is None or door is None or size < door for size, door in pairs)

    def open(self, job, crew):
        """Slots in which a crew can do a job."""
        common = set.intersection(*(self.on[name] for name in crew))
        wet = job.get("weather_bound") and self.kinds(job) in ("outside", "field")
        return common & self.dry if wet else common

    def ways(self, job):
        """All the ways to do a job by itself: (stretches, crew, place)."""
        machine = self.machines[job["machine"]]
        kind = self.kinds(job)
        where = [name for name, one in self.places.items() if one["kind"] == kind and self.passes(machine, one)]
        if kind == "bench":
            where = [None]
        else:
            if job.get("hands", 1) > machine.get("max_hands", 2):
                return
        ready = max([self.now, *(at(part["arrives"]) for part in job.get("parts", []))])
        for crew in combinations(sorted(self.people), job.get("hands", 1)):
            skill = job.get("skill")
            if skill and not any(skill in self.people[name].get("skills", []) for name in crew):
                continue
            slots = sorted(self.open(job, crew))
            many = self.slots(job["minutes"])
            for i in range(len(slots) - many + 1):
                taken = slots[i : i + many]
                if taken[0] < ready:
                    continue
                if not job.get("splittable", True) and taken[-1] - taken[0] != (many - 1) * self.slot:
                    continue
                if job.get("pin") and taken[0] != at(job["pin"]["start"]):
                    continue
                if kind != "bench" and self.change(machine.get("posture"), job) > self.worked_between(self.now, taken[0]):
                    continue
                for place in where:
                    yield (taken[0], taken[-1] + self.slot, crew, place)

    def change(self, posture, job):
        if not posture or not job.get("posture") or posture == job["posture"]:
            return 0
        return self.slots(
            next(one["minutes"] for one in self.given["moves"] if (one["from"], one["to"]) == (posture, job["posture"]))
        )

    def odds(self, one, first, other, second):
        """Why two jobs cannot be done so; None where they can."""
        overlap = first[0] < second[1] and second[0] < first[1]
        if overlap and set(first[2]) & set(second[2]):
            return "people"
        if (other["id"] in one.get("after", []) and first[0] < second[1]) or (
            one["id"] in other.get("after", []) and second[0] < first[1]
        ):
            return "order"
        if first[3] is None or second[3] is None:
            return None
        early, late, then = (first, second, other) if first[0] <= second[0] else (second, first, one)
        before = one if then is other else other
        between = -1 if overlap else self.worked_between(early[1], late[0])
        shunt = self.slots(self.given.get("shunt_min", 20))
        if one["machine"] != other["machine"]:
            narrow = first[3] == second[3] and self.places[first[3]].get("capacity", 1) == 1
            return "room" if narrow and between < shunt else None
        same = first[3] == second[3]
        alike = not one.get("posture") or not other.get("posture") or one["posture"] == other["posture"]
        hands = one.get("hands", 1) + other.get("hands", 1) <= self.machines[one["machine"]].get("max_hands", 2)
        if same and alike and hands:
            return None
        return "machine" if between < self.change(before.get("posture"), then) + (0 if same else shunt) else None

    def crowded(self, placed):
        """Whether more people are at a machine than may be, or more lifts are in use than there are."""
        for moment in {way[0] for way in placed.values()}:
            under_way = [self.jobs[name] for name, way in placed.items() if way[0] <= moment < way[1]]
            if sum(bool(job.get("lift")) for job in under_way) > self.given.get("lifts", 0):
                return True
            for name, machine in self.machines.items():
                there = sum(job.get("hands", 1) for job in under_way if job["machine"] == name and self.kinds(job) != "bench")
                if there > machine.get("max_hands", 2):
                    return True
        return False

    def due(self, machine):
        if not machine.get("season_date"):
            return None
        morning = at(machine["season_date"])
        return max((one + self.slot for one in self.anybody if one < morning), default=morning)

    def worth(self, placed):
        """Weighted late hours, jobs moved, posture changes, last finish: least is best."""
        late = 0.0
        changes = 0
        for name, machine in self.machines.items():
            mine = [(placed[key][0], key) for key, job in self.jobs.items() if job["machine"] == name and key in placed]
            due = self.due(machine)
            if due and mine:
                late += machine.get("priority", 1) * max(
                    0.0, (max(placed[key][1] for _, key in mine) - due).total_seconds() / 3600
                )
            posture = machine.get("posture")
            for _, key in sorted(mine):
                wanted = self.jobs[key].get("posture") if placed[key][3] is not None else None
                if wanted:
                    changes += bool(posture) and posture != wanted
                    posture = wanted
        before = {one["id"]: (at(one["start"]), tuple(sorted(one["technicians"]))) for one in self.given.get("previous", [])}
        moved = sum((placed[key][0], tuple(sorted(placed[key][2]))) != where for key, where in before.items())
        return (round(late, 6), moved, changes, max((way[1] for way in placed.values()), default=self.now))

    def all(self):
        """Every plan that has all jobs and breaks no rule."""
        ids = list(self.jobs)
        ways = {key: list(self.ways(self.jobs[key])) for key in ids}

        def go(i, placed):
            if i == len(ids):
                if not self.crowded(placed):
                    yield placed
                return
            job = self.jobs[ids[i]]
            for way in ways[ids[i]]:
                if all(self.odds(self.jobs[key], other, job, way) is None for key, other in placed.items()):
                    yield from go(i + 1, {**placed, ids[i]: way})

        return go(0, {})

    def best(self):
        """The least worth of any plan that has all jobs; None where there is none."""
        return min(map(self.worth, self.all()), default=None)

    def late(self, placed):
        """Late hours of each machine with a date."""
        found = {}
        for name, machine in self.machines.items():
            ends = [placed[key][1] for key, job in self.jobs.items() if job["machine"] == name]
            if due := self.due(machine):
                found[name] = max([0.0, *((end - due).total_seconds() / 3600 for end in ends)])
        return found

    def least_late(self, machine, others):
        """The least a machine can be late with all jobs done and no other machine later than so many hours."""
        lates = map(self.late, self.all())
        return min(
            (one[machine] for one in lates if all(one[name] <= others[name] + 1e-9 for name in one if name != machine)),
            default=None,
        )

    def read(self, plan):
        """A plan as it was answered, as it is looked at here."""
        return {
            job["id"]: (
                at(job["parts"][0]["start"]),
                at(job["parts"][-1]["end"]),
                tuple(sorted(job["technicians"])),
                job["place"],
            )
            for job in plan["jobs"]
        }

    def broken(self, plan):
        """Every rule that a plan breaks, in words."""
        placed = self.read(plan)
        found = [f"{name} cannot be done so" for name, way in placed.items() if way not in set(self.ways(self.jobs[name]))]
        for one, other in combinations(placed, 2):
            if why := self.odds(self.jobs[one], placed[one], self.jobs[other], placed[other]):
                found.append(f"{one} and {other}: {why}")
        for job in plan["jobs"]:
            worked = {slot for part in job["parts"] for slot in self.grid if at(part["start"]) <= slot < at(part["end"])}
            if len(worked) != self.slots(self.jobs[job["id"]]["minutes"]):
                found.append(f"{job['id']} is worked on for {len(worked)} slots")
            if not worked <= self.open(self.jobs[job["id"]], tuple(job["technicians"])):
                found.append(f"{job['id']} is worked on when nobody does")
        if self.crowded(placed):
            found.append("crowded")
        if len(placed) + len(plan["unplaced"]) != len(self.jobs):
            found.append("jobs are missing")
        return found
