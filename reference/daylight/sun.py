"""Where the sun stands and when it rises and sets, by independent libraries.

Positions: pvlib's own writing of NREL's algorithm (pvlib.spa, Python), apparent, 1013.25 hPa and 12 degrees. Rise and set: PyEphem
(VSOP87), the upper limb at the horizon with 34 arc minutes of refraction.

usage: python sun.py > crates/core/tests/fixtures/sun.json     (needs pvlib and ephem)
"""

import datetime as dt
import json
import random

import ephem
import pandas as pd
from pvlib.solarposition import spa_python

UTC = dt.timezone.utc
EPOCH = dt.datetime(1970, 1, 1, tzinfo=UTC)


def seconds(when):
    return int((when - EPOCH).total_seconds())


def positions(rng, count):
    found = []
    for _ in range(count):
        when = dt.datetime(1950, 1, 1, tzinfo=UTC) + dt.timedelta(seconds=rng.randrange(100 * 365 * 86400))
        latitude, longitude = round(rng.uniform(-89, 89), 4), round(rng.uniform(-180, 180), 4)
        # None: pvlib's own estimate of terrestrial less universal time.
        sun = spa_python(pd.DatetimeIndex([when]), latitude, longitude, altitude=0, pressure=101325,
                         temperature=12, delta_t=None, atmos_refract=0.5667).iloc[0]
        found.append([seconds(when), latitude, longitude, round(float(sun.azimuth), 6),
                      round(float(sun.apparent_elevation), 6)])
    return found


def risings(rng, count):
    """Days with one rise and one set; away from the poles, where both are sharp."""
    found = []
    while len(found) < count:
        day = dt.datetime(1950, 1, 1, tzinfo=UTC) + dt.timedelta(days=rng.randrange(100 * 365))
        observer = ephem.Observer()
        latitude, longitude = round(rng.uniform(-58, 58), 4), round(rng.uniform(-180, 180), 4)
        observer.lat, observer.lon = str(latitude), str(longitude)
        observer.pressure, observer.horizon = 0, "-0:34"
        observer.date = day.replace(tzinfo=None)
        rise = observer.next_rising(ephem.Sun()).datetime().replace(tzinfo=UTC)
        observer.date = rise.replace(tzinfo=None)
        fall = observer.next_setting(ephem.Sun()).datetime().replace(tzinfo=UTC)
        found.append([seconds(day), latitude, longitude, seconds(rise), seconds(fall)])
    return found


def main():
    rng = random.Random(18)
    print(json.dumps({"positions": positions(rng, 1000), "risings": risings(rng, 100)}))


if __name__ == "__main__":
    main()
