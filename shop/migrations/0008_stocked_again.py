"""Add `stocked` where it is missing: databases made before 0001 was edited in place never had the column."""

from django.db import migrations


def add_where_missing(apps, schema_editor):
    connection = schema_editor.connection
    with connection.cursor() as cursor:
        columns = {column.name for column in connection.introspection.get_table_description(cursor, "shop_shop")}
        if "stocked" not in columns:
            cursor.execute("ALTER TABLE shop_shop ADD COLUMN stocked varchar(32) NOT NULL DEFAULT ''")


class Migration(migrations.Migration):

    dependencies = [
        ('shop', '0007_trusted_log'),
    ]

    operations = [
        migrations.RunPython(add_where_missing, migrations.RunPython.noop),
    ]
