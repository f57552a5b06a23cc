using System.Diagnostics;
using System.Globalization;
using System.Text;
using BenchmarkDotNet.Running;
using Formatum.Bench;
using Formatum.Core.Edits;
using Formatum.Core.Geometry;
using Formatum.Core.Publications;
using Formatum.Imaging;
using Formatum.Output;

// fit | rules | pour | open | pointer | previews [FOLDER] | pdf [FOLDER]: each measured beside a program from outside, in the same run, on the same files.
string what = args.FirstOrDefault() ?? "";
string folder = args.ElementAtOrDefault(1) ?? Path.Combine(Path.GetTempPath(), "formatum-bench");
switch (what)
{
    case "fit": BenchmarkRunner.Run<FitBench>(); break;
    case "rules":
        RulesBench.Resolve();
        await RulesBench.StoreAsync(folder);
        break;
    case "pour": PourBench.Run(); break;
    case "open": await OpenBench.RunAsync(folder); break;
    case "pointer": await PointerBench.RunAsync(folder); break;
    case "previews": Previews(); break;
    case "pdf": Pdf(); break;
    case "pdf-child": PdfChild(); break;
    case "previews-child": PreviewsChild(); break;
    default: Console.Error.WriteLine("Choose fit, rules, pour, open, pointer, previews or pdf."); return 2;
}
return 0;

// Previews of 40 photographs of 24 megapixels, in all our sizes, against vipsthumbnail making the largest of them only.
void Previews()
{
    var files = Pictures.Make(Path.Combine(folder, "large"), 40, 6000, 4000);
    var (ours, memory) = Child("previews-child");
    string list = string.Join(' ', files);
    double one = Time("vipsthumbnail", $"--size 1600x1600> -o {folder}/tn-%s.jpg[Q=82] {list}");
    double three = one + Time("vipsthumbnail", $"--size 720x720> -o {folder}/tn2-%s.jpg[Q=82] {list}") + Time("vipsthumbnail", $"--size 240x240> -o {folder}/tn3-%s.jpg[Q=82] {list}");
    Console.WriteLine($"previews of 40 photographs of 24 MP: ours (three sizes, hash, checks) {ours:0.00} s, peak {memory:0} MB");
    Console.WriteLine($"  vipsthumbnail, largest size only {one:0.00} s: ratio {ours / one:0.00}");
    Console.WriteLine($"  vipsthumbnail, the same three sizes {three:0.00} s: ratio {ours / three:0.00}");
}

void PreviewsChild()
{
    var files = Directory.GetFiles(Path.Combine(folder, "large")).Order().ToArray();
    string target = Path.Combine(folder, "previews");
    if (Directory.Exists(target)) Directory.Delete(target, true);
    var reader = new PictureReader(new(), new(target));
    var watch = Stopwatch.StartNew();
    Parallel.ForEach(files, new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount }, file => reader.Read(file, Path.GetFileName(file)));
    Report(watch);
}

// 50 pages with 300 different JPEGs of 6 megapixels, against img2pdf on the same files and Chromium printing the same pages.
void Pdf()
{
    var files = Pictures.Make(Path.Combine(folder, "six"), 300, 3000, 2000);
    double megabytes = files.Sum(f => new FileInfo(f).Length) / 1048576.0;
    var (ours, memory) = Child("pdf-child");
    double size = new FileInfo(Path.Combine(folder, "ours.pdf")).Length / 1048576.0;
    double theirs = Time("img2pdf", $"-o {folder}/img2pdf.pdf {string.Join(' ', files)}");
    double theirSize = new FileInfo(Path.Combine(folder, "img2pdf.pdf")).Length / 1048576.0;
    Console.WriteLine($"PDF of 50 pages, 300 JPEGs of 6 MP ({megabytes:0} MB): ours {ours:0.00} s, {size:0} MB, peak {memory:0} MB");
    Console.WriteLine($"  img2pdf {theirs:0.00} s, {theirSize:0} MB: ratio {ours / theirs:0.00} in time, {size / theirSize:0.000} in size");

    var html = new StringBuilder("<!doctype html><style>@page{size:210mm 297mm;margin:0}body{margin:0}.p{position:relative;width:210mm;height:297mm;break-after:page;overflow:hidden}img{position:absolute;object-fit:cover;width:85mm;height:80mm}</style>");
    for (int page = 0; page < 50; page++)
    {
        html.Append("<div class=p>");
        for (int i = 0; i < 6; i++) html.Append(CultureInfo.InvariantCulture, $"<img src='{files[page * 6 + i]}' style='left:{15 + i % 2 * 95}mm;top:{15 + i / 2 * 90}mm'>");
        html.Append("</div>");
    }
    File.WriteAllText(Path.Combine(folder, "pages.html"), html.ToString());
    double chromium = Time("chromium", $"--headless --no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking --disable-component-update --disable-sync --allow-file-access-from-files --user-data-dir={folder}/profile --no-pdf-header-footer --print-to-pdf={folder}/chromium.pdf file://{folder}/pages.html");
    Console.WriteLine($"  Chromium printing the same pages {chromium:0.0} s: ratio {ours / chromium:0.0000}");
}

void PdfChild()
{
    var previews = new PreviewStore(Path.Combine(folder, "previews-pdf"));
    // Linked without being decoded, so that the memory measured is that of writing alone.
    var images = Directory.GetFiles(Path.Combine(folder, "six")).Order().Select(file => new LinkedImage
    {
        Id = 0,
        Name = Path.GetFileName(file),
        Path = file,
        Bytes = new FileInfo(file).Length,
        Modified = default,
        ContentHash = Path.GetFileName(file),
        Format = "jpeg",
        StoredWidthPx = 3000,
        StoredHeightPx = 2000,
        StoredPpiX = 300,
        StoredPpiY = 300,
    });
    var publication = Publication.Create(new Setup { Name = "Bench", PageWidth = Units.Millimetres(210), PageHeight = Units.Millimetres(297) }, 50);
    publication = publication.With(new LinkImages([.. images]).On(publication));
    int[] ids = [.. publication.Images.Keys.Order()];
    for (int i = 0; i < ids.Length; i++)
    {
        var edit = new MakeFrame { Page = 1 + i / 6, Box = new(Units.Millimetres(15 + i % 2 * 95), Units.Millimetres(15 + i % 6 / 2 * 90), Units.Millimetres(85), Units.Millimetres(80)), ImageId = ids[i] };
        publication = publication.With(edit.On(publication));
    }
    var watch = Stopwatch.StartNew();
    PdfWriter.Write(publication, previews, new(), Path.Combine(folder, "ours.pdf"));
    Report(watch);
}

// A measured child tells its seconds and its peak of resident memory, mapped files included.
static void Report(Stopwatch watch)
{
    double seconds = watch.Elapsed.TotalSeconds;
    string Field(string name) => File.ReadLines("/proc/self/status").First(l => l.StartsWith(name, StringComparison.Ordinal)).Split(' ', StringSplitOptions.RemoveEmptyEntries)[1];
    Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{seconds} {double.Parse(Field("VmHWM:"), CultureInfo.InvariantCulture) / 1024}"));
}

(double Seconds, double Megabytes) Child(string name)
{
    using var process = Process.Start(new ProcessStartInfo("dotnet", [Path.Combine(AppContext.BaseDirectory, "Formatum.Bench.dll"), name, folder]) { RedirectStandardOutput = true })!;
    var numbers = process.StandardOutput.ReadToEnd().Trim().Split('\n')[^1].Split(' ');
    process.WaitForExit();
    return (double.Parse(numbers[0], CultureInfo.InvariantCulture), double.Parse(numbers[1], CultureInfo.InvariantCulture));
}

static double Time(string program, string arguments)
{
    var watch = Stopwatch.StartNew();
    using var process = Process.Start(new ProcessStartInfo(program, arguments) { RedirectStandardError = true, RedirectStandardOutput = true })!;
    _ = process.StandardOutput.ReadToEndAsync();
    _ = process.StandardError.ReadToEndAsync();
    process.WaitForExit();
    if (process.ExitCode != 0) Console.Error.WriteLine($"{program} failed with {process.ExitCode}.");
    return watch.Elapsed.TotalSeconds;
}
