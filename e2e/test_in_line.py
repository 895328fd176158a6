"""What costs the server much is done in turn: the place in line is said, and it comes by itself."""

from playwright.sync_api import Page, Route, expect


def test_a_plan_waits_in_line_says_where_and_comes(page: Page, sign_in, accessible):
    sign_in("ada", at="/parts/sourcing")
    places = [3, 2]

    def in_line(route: Route):
        if not places:
            return route.continue_()
        headers = {"Retry-After": "1", "X-Lumvek-Place": str(places.pop(0))}
        return route.fulfill(status=429, headers=headers, json={"error": {"field": "", "message": "Others come first."}})

    page.route("**/api/supply/plans", in_line)
    page.reload()  # the first plan is worked out by itself
    waits = page.get_by_role("status").filter(has_text="Others come first: number")
    expect(waits).to_contain_text("number 2 in line. It goes on by itself.")
    accessible(page)
    expect(waits).to_have_count(0)
    expect(page.get_by_role("radio", name="Least cost").first).to_be_visible()
