"""Command line of tidewatch."""
import argparse
import sys

from tidewatch import predict, serve, stations


def main(arguments=None):
    parser = argparse.ArgumentParser(prog="tidewatch")
    commands = parser.add_subparsers(dest="command", required=True)
    serving = commands.add_parser("serve", help="answer the other programs")
    serving.add_argument("--port", type=int, default=8300)
    predicting = commands.add_parser("predict", help="print levels to come")
    predicting.add_argument("station", choices=sorted(stations.BY_NAME))
    predicting.add_argument("--days", type=int, default=1)
    options = parser.parse_args(arguments)
    if options.command == "serve":
        serve.run(options.port)
        return 0
    for when, level in predict.table(stations.BY_NAME[options.station], options.days):
        print(f"{when:%Y-%m-%d %H:%M}  {level:5.2f} m")
    return 0


if __name__ == "__main__":
    sys.exit(main())
