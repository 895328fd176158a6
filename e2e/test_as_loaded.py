"""What the other browser tests rest on."""


def test_every_test_finds_the_demo_as_it_was_loaded(product):
    product.ask_database("UPDATE auth_user SET first_name = 'Somebody'")
    product.restore_demo()
    assert product.ask_database("SELECT COUNT(*) FROM auth_user WHERE first_name = 'Somebody'") == "0"
    product.ask_database("UPDATE auth_user SET first_name = 'Somebody'")
    product.stop_database()
    product.start_database()
    product.restore_demo()
    assert product.ask_database("SELECT COUNT(*) FROM auth_user WHERE first_name = 'Somebody'") == "0"
