"""The colour of the sun's light by its height, by independent libraries.

Spectra: pvlib's writing of SPECTRL2 (Bird and Riordan 1986), which knows ozone, water and oxygen beside air and haze; colour: the
colour-science package (Ohno 2013) over the CIE 1931 observer. The haze is Angstrom's with 0.1 at 1 um and an exponent of 1.3.

usage: python sun_colour.py > crates/core/tests/fixtures/sun_colour.json     (needs pvlib and colour-science)
"""

import json
import warnings

import numpy as np

warnings.simplefilter("ignore")

import colour  # noqa: E402
import pvlib  # noqa: E402
from pvlib.spectrum import spectrl2  # noqa: E402

GRID_NM = np.arange(380, 781, 5)


def cct_k(elevation_deg):
    zenith = 90 - elevation_deg
    mass = pvlib.atmosphere.get_relative_airmass(zenith, "kastenyoung1989")
    found = spectrl2(apparent_zenith=zenith, aoi=zenith, surface_tilt=0, ground_albedo=0.2, surface_pressure=101325,
                     relative_airmass=mass, precipitable_water=1.5, ozone=0.3, aerosol_turbidity_500nm=0.1 * 0.5**-1.3,
                     dayofyear=94, alpha=1.3)
    power = np.interp(GRID_NM, found["wavelength"], np.asarray(found["dni"]).ravel())
    spectrum = colour.SpectralDistribution(dict(zip(GRID_NM, power)))
    uv = colour.UCS_to_uv(colour.XYZ_to_UCS(colour.sd_to_XYZ(spectrum)))
    return float(colour.temperature.uv_to_CCT_Ohno2013(uv)[0])


print(json.dumps([[elevation, round(cct_k(elevation), 1)] for elevation in (5, 10, 15, 20, 30, 45, 60, 80)]))
