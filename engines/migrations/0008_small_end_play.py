"""A limit of the small end that is far smaller than any bore is one of its play."""

from django.db import migrations, models

MOST_PLAY_MM = 1.0


def forwards(apps, schema_editor):
    specs = apps.get_model("engines", "Spec").objects.filter(property="small-end-bore", high__lte=MOST_PLAY_MM)
    specs.update(property="small-end-play", property_assumed=True)


class Migration(migrations.Migration):
    dependencies = [("engines", "0007_one_truth")]
    operations = [
        migrations.AlterField(
            model_name="spec",
            name="property",
            field=models.CharField(
                blank=True,
                choices=[
                    ("end-float", "end float of the crank"),
                    ("big-end-side-play", "big-end side play"),
                    ("big-end-radial-play", "big-end radial play"),
                    ("small-end-play", "play of the small end"),
                    ("small-end-bore", "small-end bore"),
                    ("width-over-webs", "width over the webs"),
                    ("pin-interference", "interference of the crankpin"),
                    ("crank-runout", "runout of the crank"),
                    ("centring", "crank off centre between the halves"),
                    ("leak", "leak of the closed case, a minute"),
                    ("rim-runout", "runout of the flywheel's rim"),
                    ("air-gap", "air gap of the ignition"),
                ],
                default="",
                max_length=30,
                verbose_name="what it limits",
            ),
        ),
        migrations.RunPython(forwards, migrations.RunPython.noop),
    ]
