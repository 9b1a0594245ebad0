from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [
        ("engines", "0011_assumed_sizes"),
    ]

    operations = [
        migrations.AddField(
            model_name="enginecard",
            name="stamp",
            field=models.BigIntegerField(default=0, editable=False, help_text="Another one after every change; `engines.stamps` draws it."),
        ),
        migrations.RunSQL("UPDATE engines_enginecard SET stamp = random()", migrations.RunSQL.noop),
    ]
