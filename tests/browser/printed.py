"""A paper that a link opens in a tab of its own."""


def printed(page, name):
    """Press the link; the address of the paper that is asked for."""
    with page.context.expect_event("request", lambda sent: sent.is_navigation_request()) as asked:
        page.get_by_role("link", name=name).press("Enter")
    return asked.value.url
