"""How the crank is held for a limit of its runout is told by a choice, guessed from the words that said it so far."""

from django.db import migrations, models

HELD = (  # how a manual says where its limit is measured, the first that fits
    ("centre", ("centre bearing", "centre main", "inner main")),
    ("centres", ("between centres", "centre hole", "lathe")),
    ("seats", ("on the mains", "main bearing", "on its seats", "vee", "roller")),
)


def forwards(apps, schema_editor):
    for spec in apps.get_model("engines", "Spec").objects.filter(property="crank-runout").exclude(setup=""):
        said = spec.setup.lower()
        held = next((held for held, words in HELD if any(word in said for word in words)), "")
        if held:
            spec.held, spec.held_assumed = held, True
            spec.save(update_fields=["held", "held_assumed"])


class Migration(migrations.Migration):

    dependencies = [
        ('engines', '0009_engine_subject'),
    ]

    operations = [
        migrations.AddField(
            model_name='spec',
            name='held',
            field=models.CharField(blank=True, choices=[('centres', 'between centres'), ('seats', 'on its main bearing seats'), ('centre', 'on its centre bearings'), ('outer', 'on its outer journals')], default='', max_length=8, verbose_name='crank held'),
        ),
        migrations.AddField(
            model_name='spec',
            name='held_assumed',
            field=models.BooleanField(default=False, help_text='Guessed from how it is measured.'),
        ),
        migrations.RunPython(forwards, migrations.RunPython.noop),
    ]
