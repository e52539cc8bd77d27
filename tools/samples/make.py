"""Makes the small files that the tests of the readers read, and what second readers read in them.

The files are written by other makers' programs, and read again by yet others; a test compares Sarnik's reading with theirs.
Everything in them is made up. Needs (none of it is needed to build, run or test Sarnik):

    pip install geopandas pyogrio pyarrow openpyxl duckdb
    npm install xlsx@0.18.5 hyparquet@1.33.0 fzstd@0.1.1    (beside this script, or in the folder that SAMPLES_MODULES names)

    TZ=UTC python3 tools/samples/make.py core/src/test/resources/sarnik/format/second

Each file NAME has a NAME.json beside it: {"written": …, "read": …, "rows": [{column: value}], "shapes": [text or null]}, with
shapes as well-known text in degrees.
"""

import datetime
import decimal
import json
import os
import pathlib
import shutil
import subprocess
import sys
import tempfile

import duckdb
import geopandas
import openpyxl
import pandas
import pyarrow
import pyarrow.parquet
import pyogrio
import shapely

OUT = pathlib.Path(sys.argv[1])
HERE = pathlib.Path(__file__).parent
GDAL = "GDAL " + ".".join(map(str, pyogrio.__gdal_version__))

ROWS = [
    ("Ávila", "05", -1.5, 12, datetime.date(2026, 5, 1), datetime.datetime(2026, 5, 1, 7, 30, 5), True, "first, \"quoted\""),
    ("A Coruña", "15", 0.1 + 0.2, 1234567, datetime.date(1999, 12, 31), datetime.datetime(2025, 12, 31, 0, 0, 1), False, "line one\nline two"),
    ("北京", "007", 1e-7, 0, datetime.date(2024, 2, 29), datetime.datetime(1970, 1, 1, 12, 0, 0), True, "  blanks  "),
    ("São Tomé", "99", 98765.4321, -3, None, None, None, None),
    ("Zürich", "00", None, None, datetime.date(2026, 1, 2), datetime.datetime(2026, 1, 2, 23, 59, 59), False, "-"),
]
NAMES = ["town", "code", "mean", "pieces", "opened", "seen", "checked", "note"]
POINTS = [(-4.7, 40.65), (-8.41, 43.37), (116.4, 39.9), (6.73, 0.34), (8.54, 47.37)]


def frame():
    data = pandas.DataFrame(ROWS, columns=NAMES)
    data["pieces"] = data["pieces"].astype("Int64")
    data["checked"] = data["checked"].astype("boolean")
    data["seen"] = pandas.to_datetime(data["seen"])
    return data


def plain(value):
    if value is None or value is pandas.NA or value is pandas.NaT or isinstance(value, float) and value != value:
        return None
    if isinstance(value, (pandas.Timestamp, datetime.datetime)):
        return value.isoformat(sep="T")[:19]
    if isinstance(value, (datetime.date, datetime.time)):
        return value.isoformat()
    if isinstance(value, decimal.Decimal):
        return float(value)
    return value.item() if hasattr(value, "item") else value


def keep(name, written, read, rows, shapes=None, **choices):
    rows = [{key: plain(value) for key, value in row.items()} for row in rows]
    text = {"written": written, "read": read, **choices, "rows": rows}
    if shapes is not None:
        text["shapes"] = shapes
    (OUT / (name + ".json")).write_text(json.dumps(text, ensure_ascii=False, indent=1) + "\n", encoding="utf-8")


def by_gdal(name, layer=None, **options):
    """Rows and shapes in degrees as GDAL reads them."""
    data = pyogrio.read_dataframe(str(OUT / name), layer=layer, **options)
    shapes = None
    if isinstance(data, geopandas.GeoDataFrame):
        shapes = [None if g is None else shapely.to_wkt(g, rounding_precision=9) for g in (data.geometry.to_crs(4326) if data.crs else data.geometry)]
        data = pandas.DataFrame(data.drop(columns=data.geometry.name))
    return data.to_dict("records"), shapes


def by_node(*arguments):
    return json.loads(subprocess.run(["node", str(HERE / "second.mjs"), *map(str, arguments)], check=True, capture_output=True, text=True).stdout)


def by_duckdb(name, what):
    found = duckdb.sql(f"SELECT * FROM {what}('{OUT / name}')")
    return [dict(zip(found.columns, row)) for row in found.fetchall()]


def text_files():
    data = frame()
    data.to_csv(OUT / "pandas.csv", index=False)
    keep("pandas.csv", f"pandas {pandas.__version__}", f"DuckDB {duckdb.__version__}", by_duckdb("pandas.csv", "read_csv_auto"))
    data.to_csv(OUT / "pandas.csv.gz", index=False, sep=";", encoding="utf-16")
    keep("pandas.csv.gz", f"pandas {pandas.__version__}", f"pandas {pandas.__version__}", pandas.read_csv(OUT / "pandas.csv.gz", sep=";", encoding="utf-16", dtype={"code": str}).to_dict("records"))
    data.drop(columns=["seen"]).to_json(OUT / "pandas.jsonl", orient="records", lines=True, date_format="iso", force_ascii=False)
    keep("pandas.jsonl", f"pandas {pandas.__version__}", f"DuckDB {duckdb.__version__}", by_duckdb("pandas.jsonl", "read_json_auto"))


def spreadsheets():
    book = openpyxl.Workbook()
    sheet = book.active
    sheet.title = "Rows"
    sheet.append(NAMES)
    for row in ROWS:
        sheet.append(row)
    for row in sheet.iter_rows(min_row=2):
        row[4].number_format = "dd/mm/yyyy"
        row[5].number_format = "yyyy-mm-dd hh:mm:ss"
    book.save(OUT / "openpyxl.xlsx")
    keep("openpyxl.xlsx", f"openpyxl {openpyxl.__version__}", "SheetJS 0.18.5", by_node("read", OUT / "openpyxl.xlsx"))
    book.epoch = openpyxl.utils.datetime.MAC_EPOCH
    book.save(OUT / "from1904.xlsx")
    again = openpyxl.load_workbook(OUT / "from1904.xlsx").active.iter_rows(min_row=2, values_only=True)
    later = [dict(zip(NAMES, row)) for row in again]
    for row in later:
        row["opened"] = row["opened"] and row["opened"].date()
    keep("from1904.xlsx", f"openpyxl {openpyxl.__version__}, days from 1904", f"openpyxl {openpyxl.__version__}", later)
    source = pathlib.Path(tempfile.mkdtemp()) / "rows.json"
    source.write_text(json.dumps([NAMES] + [[plain(value) for value in row] for row in ROWS]), encoding="utf-8")
    for ending, kind in [("xls", "biff8"), ("ods", "ods"), ("fods", "fods"), ("sheetjs.xlsx", "xlsx")]:
        name = ending if "." in ending else "sheetjs." + ending
        by_node("write", source, OUT / name, kind)
        keep(name, "SheetJS 0.18.5", "SheetJS 0.18.5", by_node("read", OUT / name))
    pyogrio.write_dataframe(frame(), str(OUT / "gdal.ods"), driver="ODS")
    rows, _ = by_gdal("gdal.ods")
    # GDAL writes ends of lines and blanks as they are, which the format does not keep; SheetJS reads them as it says.
    for row, read in zip(rows, by_node("read", OUT / "gdal.ods")):
        row["note"] = read["note"]
    keep("gdal.ods", GDAL, f"{GDAL}; texts: SheetJS 0.18.5", rows)


def parquets():
    table = pyarrow.Table.from_pandas(frame(), preserve_index=False)
    table = table.set_column(2, "mean", table["mean"].cast(pyarrow.float32())).append_column("price", pyarrow.array([decimal.Decimal("1.25"), decimal.Decimal("-0.10"), None, decimal.Decimal("99999.99"), decimal.Decimal("0")], pyarrow.decimal128(9, 2)))
    where = pyarrow.array([{"street": "Mayor", "floor": 1}, None, {"street": None, "floor": 2}, {"street": "Rúa", "floor": None}, {"street": "", "floor": 0}])
    for codec, page in [("none", "1.0"), ("snappy", "1.0"), ("gzip", "2.0"), ("zstd", "2.0"), ("lz4", "1.0")]:
        name = f"pyarrow-{codec}.parquet"
        pyarrow.parquet.write_table(table.append_column("at", where), OUT / name, compression=codec, data_page_version=page, row_group_size=2, use_dictionary=codec != "gzip",
                                    column_encoding={"pieces": "DELTA_BINARY_PACKED", "town": "DELTA_BYTE_ARRAY"} if codec == "gzip" else None)
        rows = by_duckdb(name, "read_parquet")
        for row in rows:
            at = row.pop("at")
            row["at.street"], row["at.floor"] = (at or {}).get("street"), (at or {}).get("floor")
        keep(name, f"Apache Arrow {pyarrow.__version__}", f"DuckDB {duckdb.__version__}", rows)
    duckdb.sql(f"COPY (SELECT * EXCLUDE (checked) FROM read_parquet('{OUT / 'pyarrow-none.parquet'}')) TO '{OUT / 'duckdb.parquet'}' (FORMAT parquet, COMPRESSION zstd)")
    keep("duckdb.parquet", f"DuckDB {duckdb.__version__}", "hyparquet 1.33.0", by_node("parquet", OUT / "duckdb.parquet"))
    odd = pyarrow.table({"nested": [{"x": 1, "y": {"z": "q"}}, None, {"x": None, "y": None}], "half": pyarrow.array([1.5, -0.25, 65504], pyarrow.float16()), "from": pyarrow.array([datetime.time(1, 0), None, datetime.time(23, 59, 59)], pyarrow.time64("us")),
                         "zoned": pyarrow.array([1700000000000, None, 0], pyarrow.timestamp("ms", "UTC")), "unsigned": pyarrow.array([2 ** 32 - 1, 0, None], pyarrow.uint32()), "kind": pyarrow.array(["a", "b", "a"]).dictionary_encode()})
    pyarrow.parquet.write_table(odd, OUT / "kinds.parquet", compression="zstd")
    rows = [{"nested.x": (row["nested"] or {}).get("x"), "nested.y.z": ((row["nested"] or {}).get("y") or {}).get("z"), "half": row["half"] and float(row["half"]), "from": row["from"] and row["from"].isoformat("minutes" if row["from"].second == 0 else "seconds"),
             "zoned": row["zoned"] and row["zoned"].replace(tzinfo=None), "unsigned": row["unsigned"], "kind": row["kind"]} for row in pyarrow.parquet.read_table(OUT / "kinds.parquet").to_pylist()]
    keep("kinds.parquet", f"Apache Arrow {pyarrow.__version__}", f"Apache Arrow {pyarrow.__version__}", rows)
    pyarrow.parquet.write_table(table.select(["town", "seen"]), OUT / "int96.parquet", use_deprecated_int96_timestamps=True)
    keep("int96.parquet", f"Apache Arrow {pyarrow.__version__}, moments as older writers store them", f"DuckDB {duckdb.__version__}", by_duckdb("int96.parquet", "read_parquet"))


def shapes():
    data = frame().drop(columns=["note"])
    points = geopandas.GeoDataFrame(data, geometry=geopandas.points_from_xy(*zip(*POINTS)), crs=4326)
    ring = shapely.Polygon([(-6, 41), (-5, 41), (-5, 42), (-6, 42)], [[(-5.8, 41.2), (-5.8, 41.8), (-5.2, 41.8), (-5.2, 41.2)]])
    mixed = geopandas.GeoDataFrame({"name": ["ring", "two", "nothing"], "n": [1, 2, 3]}, geometry=[ring, shapely.MultiPolygon([shapely.box(0, 40, 1, 41), shapely.box(2, 40, 3, 41)]), None], crs=4326)
    points.to_file(OUT / "points.geojson", driver="GeoJSON")
    keep("points.geojson", GDAL, GDAL, *by_gdal("points.geojson"))
    points.to_crs(3857).to_file(OUT / "layers.gpkg", driver="GPKG", layer="stands")
    mixed.to_crs(25830).to_file(OUT / "layers.gpkg", driver="GPKG", layer="areas")
    keep("layers.gpkg", GDAL, GDAL, *by_gdal("layers.gpkg", "areas"), sheet="areas", sheets=["areas", "stands"])
    with tempfile.TemporaryDirectory() as directory:
        mixed.to_crs(25830).to_file(pathlib.Path(directory) / "areas.shp", driver="ESRI Shapefile", encoding="UTF-8")
        shutil.make_archive(str(OUT / "areas"), "zip", directory)
    keep("areas.zip", GDAL, GDAL, *by_gdal("areas.zip"))
    places = points[["town", "code", "pieces", "geometry"]].rename(columns={"town": "Name"})
    for ending in ["kml", "kmz"]:
        places.to_file(OUT / f"gdal.{ending}", driver="LIBKML")
        rows, lines = by_gdal(f"gdal.{ending}")
        keep(f"gdal.{ending}", GDAL, GDAL, [{"name": row["Name"], "code": row["code"], "pieces": row["pieces"]} for row in rows], lines)
    points[["town", "geometry"]].rename(columns={"town": "name"}).to_file(OUT / "gdal.gpx", driver="GPX", layer="waypoints")
    rows, lines = by_gdal("gdal.gpx", "waypoints")
    keep("gdal.gpx", GDAL, GDAL, [{"name": row["name"]} for row in rows], lines)
    for name, system in [("geoparquet.parquet", 4326), ("geoparquet-25830.parquet", 25830)]:
        mixed.to_crs(system).to_parquet(OUT / name)
        again = geopandas.read_parquet(OUT / name).to_crs(4326)
        keep(name, f"GeoPandas {geopandas.__version__}", f"GeoPandas {geopandas.__version__}", again.drop(columns="geometry").to_dict("records"), [None if g is None else shapely.to_wkt(g, rounding_precision=9) for g in again.geometry])


if __name__ == "__main__":
    OUT.mkdir(parents=True, exist_ok=True)
    for old in OUT.iterdir():
        os.remove(old)
    text_files()
    spreadsheets()
    parquets()
    shapes()
    print(f"{len(list(OUT.iterdir()))} files, {sum(f.stat().st_size for f in OUT.iterdir()):,} bytes")
