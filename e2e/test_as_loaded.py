"""What the other browser tests rest on."""

NAMED = "SELECT COUNT(*) FROM auth_user WHERE first_name = 'Somebody'"


def test_every_test_finds_the_demo_as_it_was_loaded(product):
    product.ask_database("UPDATE auth_user SET first_name = 'Somebody'")
    product.restore_demo()
    assert product.ask_database(NAMED) == "0"
    product.ask_database("UPDATE auth_user SET first_name = 'Somebody'")
    product.stop_database()
    product.start_database()
    product.restore_demo()
    assert product.ask_database(NAMED) == "0"


def test_changes_that_were_kept_come_again_and_go_again(product):
    assert not product.restore_changes("named")
    product.ask_database("UPDATE auth_user SET first_name = 'Somebody'")
    product.keep_changes("named")
    members = product.ask_database(NAMED)
    product.restore_demo()
    assert product.ask_database(NAMED) == "0"
    assert product.restore_changes("named")
    assert product.ask_database(NAMED) == members != "0"
    product.restore_demo()
    assert product.ask_database(NAMED) == "0"
