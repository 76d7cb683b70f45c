"""What the parcel office of the line took in: small, large, lost, and "end" at closing time."""

from console import Console
from parcels_app import ParcelsApp


def main():
    ParcelsApp(Console()).run()


if __name__ == "__main__":
    main()
