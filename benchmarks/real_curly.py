"""The sketches, Java programs and JavaScript scripts of others that benchmarks/real_scripts.py builds.

Sketches are those with which a package on npm tests its parser; Java programs are tests of the JDK, JavaScript scripts tests of
Node, both in Debian's source packages; more scripts are examples in packages on npm. What cannot be fetched is left out.
"""

from __future__ import annotations

import shutil
import subprocess
import zipfile
from collections.abc import Callable
from pathlib import Path

from real_case import Case

SKETCHES = ("processing-js", "test/parser")
SKETCH_GROUPS = (
    "Fry-Visualizing-Data/ch03-usmap", "Fry-Visualizing-Data/ch04-milkteacoffee", "Processing-Book-001/Synthesis",
    "Processing-Book-001/Extensions/Print", "Processing-Book-001/Units 43-51/44 Drawing 2", "Processing-Book-001/Units 43-51/45 Motion 1",
    "Processing-Book-001/Units 43-51/50 Simulate 1",
)  # fmt: skip
PACKAGES = (
    ("charm", "example"),
    ("axel", "demo"),
    ("blessed", "example"),
    ("drawille", "examples"),
    ("commander", "examples"),
)
JDK = "test/jdk/java"
JAVA = """
    io/File/Cons io/File/GetAbsolutePath io/File/Mkdir io/OutputStreamWriter/WriteAfterClose io/Serializable/badSubstByReplace/BadSubstByReplace
    io/StreamTokenizer/QuoteTest io/Writer/Append lang/Class/getMethods/StarInheritance lang/String/IndexOf lang/StringBuffer/AppendCharSequence
    lang/StringBuffer/AppendStringBuilder lang/StringBuffer/Exceptions lang/StringBuffer/Trim lang/StringBuilder/AppendStringBuffer
    lang/StringBuilder/HugeCapacity lang/ToString lang/invoke/lambda/T8032711 lang/reflect/Field/GenericStringTest math/BigDecimal/AddTests
    math/BigDecimal/DivideMcTests text/BreakIterator/Bug6513074 text/Collator/Bug6970930 text/Format/DateFormat/Bug4823811
    text/Format/DateFormat/WeekDateTest text/Format/NumberFormat/TieRoundingTest util/Calendar/Bug6902861 util/Calendar/ZoneOffsets
    util/Collections/AddAll util/Collections/CheckedListBash util/Collections/ViewSynch util/EnumSet/EnumSetBash util/LinkedHashSet/Basic
    util/Locale/InternationalBAT util/Locale/LanguageSubtagRegistryTest util/Properties/PropertiesTest util/Random/RandomTestChiSquared
    util/ResourceBundle/Bug4396021 util/ServiceLoader/NPE util/zip/ZipFile/CorruptedZipFiles util/zip/ZipFile/ManyEntries
""".split()
# Programs with windows that Debian's openjdk-17-demo has: folder → the file that starts it.
WINDOWS = {
    "FileChooserDemo": "FileChooserDemo.java", "Font2DTest": "Font2DTest.java", "Metalworks": "Metalworks.java", "Notepad": "Notepad.java",
    "SampleTree": "SampleTree.java", "SwingSet2": "SwingSet2.java", "TableExample": "TableExample3.java", "TransparentRuler": "transparentruler/Ruler.java",
}  # fmt: skip
NODE = """
    assert-calltracker-verify dgram-send-bad-arguments fs-open http-agent-error-on-idle http-chunked-smuggling https-agent-sni microtask-queue-run
    net-localerror net-pingpong net-server-max-connections net-server-pause-on-connect process-emitwarning process-hrtime promise-hook-on-resolve
    promises-unhandled-rejections source-map-api stream-construct stream-duplex-readable-writable stream-writable-null string-decoder
    timers-api-refs url-fileurltopath weakref
""".split()

TABLE = "year\tmilk\ttea\tcoffee\n" + "".join(f"{1990 + n}\t{20 + n}.5\t{7 + n % 3}.1\t{25 - n}.0\n" for n in range(9))
STOPS = ("ML", "BR", "HL", "DP", "GT")
DATA = {
    "locations.tsv": "".join(f"{s}\t{40 + 90 * n}\t{60 + 50 * n}\n" for n, s in enumerate(STOPS)),
    "random.tsv": "".join(f"{s}\t{3 * n - 5}\n" for n, s in enumerate(STOPS)),
    "names.tsv": "".join(f"{s}\tStop {s}\n" for s in STOPS), "milk-tea-coffee.tsv": TABLE,
}  # fmt: skip


def cases(cache: Path) -> list[Case]:
    return [*sketches(cache), *java(cache), *windows(cache), *node(cache), *packages(cache)]


def sketches(cache: Path) -> list[Case]:
    """A folder of files that is one sketch, each with small tables to read."""
    top = npm(SKETCHES[0], cache) / SKETCHES[1]
    found = []
    for group in SKETCH_GROUPS:
        for folder in sorted({p.parent for p in (top / group).rglob("*.pde")}):
            main = folder / f"{folder.name}.pde"
            if main.exists():
                name = f"{group.rsplit('/', 1)[-1]}/{folder.name}"
                found.append(Case(name, "sketch", main.name, gathered(sorted(folder.glob("*.pde")), DATA)))
    return found


def java(cache: Path) -> list[Case]:
    top = source("openjdk-17", f"*/{JDK}/*", cache)
    return [
        Case(f"jdk/{name}", "Java", f"{name.rsplit('/', 1)[-1]}.java", gathered([top / JDK / f"{name}.java"], {}), [([], "")])
        for name in JAVA
        if (top / JDK / f"{name}.java").exists()
    ]  # fmt: skip


def windows(cache: Path) -> list[Case]:
    """A program with all that lies beside it, which Aedifex finds scenarios for."""
    place = cache / "openjdk-17-demo"
    if not place.exists() and shutil.which("apt-get"):
        place.mkdir(parents=True)
        subprocess.run(["apt-get", "download", "-qq", "openjdk-17-demo"], cwd=place, capture_output=True)
        for package in place.glob("*.deb"):
            subprocess.run(["dpkg-deb", "-x", str(package), str(place)], capture_output=True)
    found = []
    for packed in sorted(place.glob("usr/share/doc/*/demo/jfc/*/src.zip")):

        def fill(folder: Path, packed: Path = packed) -> None:
            with zipfile.ZipFile(packed) as archive:
                archive.extractall(folder)

        name = packed.parent.name
        found += [Case(f"jdk-demo/{name}", "Java", WINDOWS[name], fill, beside="*.java")] if name in WINDOWS else []
    return found


def node(cache: Path) -> list[Case]:
    """A test, with what its folder's neighbour ``common`` gives to all tests."""
    top = source("nodejs", "*/test/*", cache) / "test"

    def laid_out(name: str) -> Callable[[Path], None]:
        def fill(folder: Path) -> None:
            for beside in ("common", "fixtures"):
                shutil.copytree(top / beside, folder / beside, symlinks=True)
            (folder / "parallel").mkdir()
            shutil.copy(top / "parallel" / name, folder / "parallel")

        return fill

    names = [f"test-{name}.js" for name in NODE if (top / "parallel" / f"test-{name}.js").exists()]
    return [Case(f"node/{n}", "JavaScript", f"parallel/{n}", laid_out(n), [([], "")]) for n in names]


def packages(cache: Path) -> list[Case]:
    """The examples of a package, inside the package, since they ask for what lies above them."""
    found = []
    for package, folder in PACKAGES:
        top = npm(package, cache)

        def fill(target: Path, top: Path = top) -> None:
            shutil.copytree(top, target, dirs_exist_ok=True)
            if not (target / "node_modules").exists():
                (target / "node_modules").symlink_to(cache / "npm" / "node_modules")

        for script in sorted((top / folder).rglob("*.js")):
            entry = script.relative_to(top).as_posix()
            found.append(Case(f"{package}/{entry}", "JavaScript", entry, fill, [([], "")]))
    return found


def gathered(files: list[Path], data: dict[str, str]) -> Callable[[Path], None]:
    def fill(folder: Path) -> None:
        for file in files:
            shutil.copy(file, folder)
        for name, text in data.items():
            (folder / name).write_text(text)

    return fill


def npm(package: str, cache: Path) -> Path:
    """An unpacked package with what it needs; a folder that is not there if it cannot be had."""
    place = cache / "npm"
    if not (place / "node_modules" / package).exists() and shutil.which("npm"):
        place.mkdir(parents=True, exist_ok=True)
        subprocess.run(
            ["npm", "install", "--silent", "--ignore-scripts", "--prefix", str(place), package], capture_output=True
        )
    return place / "node_modules" / package


def source(package: str, wanted: str, cache: Path) -> Path:
    """Part of a Debian source package, unpacked; a folder that is not there if it cannot be had."""
    place = cache / package
    if not place.exists() and shutil.which("apt-get"):
        place.mkdir(parents=True)
        listed = "".join(p.read_text() for p in Path("/etc/apt/sources.list.d").glob("*.sources"))
        (place / "s.sources").write_text(listed.replace("Types: deb\n", "Types: deb-src\n"))
        options = [
            "-o",
            f"Dir::Etc::sourcelist={place}/s.sources",
            "-o",
            "Dir::Etc::sourceparts=-",
            "-o",
            f"Dir::State::Lists={place}/lists",
        ]
        (place / "lists" / "partial").mkdir(parents=True)
        subprocess.run(["apt-get", *options, "update"], capture_output=True, cwd=place)
        shown = subprocess.run(
            ["apt-cache", *options, "showsrc", "--only-source", package], capture_output=True, text=True, cwd=place
        )
        versions = [line.split()[1] for line in shown.stdout.splitlines() if line.startswith("Version:")]
        for version in versions:  # the newest may be gone from the archive already
            command = ["apt-get", *options, "source", "--download-only", f"{package}={version}"]
            if subprocess.run(command, capture_output=True, cwd=place).returncode == 0:
                break
        for archive in place.glob(f"{package}_*.orig.tar.*"):
            subprocess.run(["tar", "xf", archive.name, "--wildcards", wanted], capture_output=True, cwd=place)
    return next((p for p in sorted(place.glob("*")) if (p / "test").is_dir()), place / "none")
