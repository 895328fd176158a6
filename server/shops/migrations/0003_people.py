"""Several roles a person, several shops; a log of everything that is a shop's own; invitations, devices, a second factor."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


def role_becomes_roles(apps, schema_editor):
    for member in apps.get_model("shops", "Member").objects.all():
        member.roles = [member.role]
        member.save(update_fields=["roles"])


def roles_become_role(apps, schema_editor):
    for member in apps.get_model("shops", "Member").objects.all():
        member.role = member.roles[0] if member.roles else "owner"
        member.save(update_fields=["role"])


class Migration(migrations.Migration):
    dependencies = [
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
        ("shops", "0002_rulechange_feeler"),
    ]

    operations = [
        migrations.AlterField(
            model_name="member",
            name="user",
            field=models.ForeignKey(
                on_delete=django.db.models.deletion.CASCADE, related_name="memberships", to=settings.AUTH_USER_MODEL
            ),
        ),
        migrations.AddField(model_name="member", name="roles", field=models.JSONField(default=list)),
        migrations.AddField(model_name="member", name="left_at", field=models.DateTimeField(blank=True, null=True)),
        migrations.AlterField(model_name="member", name="role", field=models.CharField(default="owner", max_length=12)),
        migrations.RunPython(role_becomes_roles, roles_become_role),
        migrations.RemoveField(model_name="member", name="role"),
        migrations.AddConstraint(
            model_name="member", constraint=models.UniqueConstraint(fields=["user", "shop"], name="one_member_per_person")
        ),
        migrations.RenameModel(old_name="RuleChange", new_name="Change"),
        migrations.CreateModel(
            name="Invitation",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("uuid", models.UUIDField(unique=True)),
                ("name", models.CharField(max_length=120)),
                ("email", models.EmailField(blank=True, max_length=254)),
                ("roles", models.JSONField(default=list)),
                ("made_at", models.DateTimeField(auto_now_add=True)),
                ("expires_at", models.DateTimeField()),
                ("used_at", models.DateTimeField(blank=True, null=True)),
                ("withdrawn_at", models.DateTimeField(blank=True, null=True)),
            ],
            options={
                "ordering": ["-made_at"],
            },
        ),
        migrations.CreateModel(
            name="ResetMail",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("at", models.DateTimeField(auto_now_add=True)),
            ],
        ),
        migrations.CreateModel(
            name="SetUpKey",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("digest", models.CharField(max_length=64)),
                ("made_at", models.DateTimeField(auto_now_add=True)),
            ],
        ),
        migrations.CreateModel(
            name="SignIn",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("session_key", models.CharField(db_index=True, max_length=40)),
                ("device", models.CharField(max_length=200)),
                ("address", models.CharField(max_length=45)),
                ("at", models.DateTimeField(auto_now_add=True)),
            ],
            options={
                "ordering": ["-at"],
            },
        ),
        migrations.AddField(
            model_name="change",
            name="about",
            field=models.CharField(
                choices=[
                    ("rule", "Rules"),
                    ("machine", "Machines"),
                    ("model", "Models"),
                    ("person", "People"),
                    ("shop", "The shop"),
                    ("check", "Own checks"),
                ],
                default="rule",
                max_length=8,
            ),
        ),
        migrations.AddField(
            model_name="shop",
            name="described",
            field=models.BooleanField(default=False),
        ),
        migrations.AddField(
            model_name="shop",
            name="begun",
            field=models.BooleanField(default=True),
        ),
        migrations.AddField(
            model_name="shop",
            name="second_factor",
            field=models.BooleanField(default=False),
        ),
        migrations.AlterField(
            model_name="change",
            name="after",
            field=models.CharField(max_length=400),
        ),
        migrations.AlterField(
            model_name="change",
            name="before",
            field=models.CharField(max_length=400),
        ),
        migrations.AlterField(
            model_name="change",
            name="shop",
            field=models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="changes", to="shops.shop"),
        ),
        migrations.AddIndex(
            model_name="change",
            index=models.Index(fields=["shop", "about", "id"], name="shops_chang_shop_id_3fa087_idx"),
        ),
        migrations.AddField(
            model_name="invitation",
            name="made_by",
            field=models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL),
        ),
        migrations.AddField(
            model_name="invitation",
            name="shop",
            field=models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="invitations", to="shops.shop"),
        ),
        migrations.AddField(
            model_name="resetmail",
            name="user",
            field=models.ForeignKey(
                on_delete=django.db.models.deletion.CASCADE, related_name="reset_mails", to=settings.AUTH_USER_MODEL
            ),
        ),
        migrations.AddField(
            model_name="signin",
            name="user",
            field=models.ForeignKey(
                on_delete=django.db.models.deletion.CASCADE, related_name="sign_ins", to=settings.AUTH_USER_MODEL
            ),
        ),
    ]
