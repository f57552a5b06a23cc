using System.Globalization;
using BenchmarkDotNet.Running;
using Formatum.Bench;

// Each measured beside a program from outside, in the same run, on the same files. See docs/benchmarks.md.
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
    case "start": await StartBench.RunAsync(folder, args.ElementAtOrDefault(2)); break;
    case "open": await OpenBench.RunAsync(folder); break;
    case "load":
        await LoadBench.RunAsync(folder, int.Parse(args.ElementAtOrDefault(2) ?? "60", CultureInfo.InvariantCulture), args.ElementAtOrDefault(3));
        break;
    case "words": WordsBench.Run(folder); break;
    case "wrap": WrapBench.Run(folder); break;
    case "treat":
        TreatBench.Run();
        TreatedPdfBench.Run(folder);
        break;
    case "slider": await SliderBench.RunAsync(folder); break;
    case "typing": await TypingBench.RunAsync(folder); break;
    case "nudge": await NudgeBench.RunAsync(folder); break;
    case "pointer": await PointerBench.RunAsync(folder); break;
    case "line": await LineBench.RunAsync(folder, args.ElementAtOrDefault(2)); break;
    case "previews": PreviewBench.Run(folder); break;
    case "previews-child": PreviewBench.Child(folder); break;
    case "import": await PreviewBench.ImportAsync(folder); break;
    case "check": CheckBench.Run(); break;
    case "compare": CompareBench.Run(folder); break;
    case "press": PressBench.Run(folder); break;
    case "press-child": PressBench.Child(folder, args[2]); break;
    case "pdf": PdfBench.Run(folder); break;
    case "pdf-child": PdfBench.Child(folder, int.Parse(args[2], CultureInfo.InvariantCulture)); break;
    default:
        Console.Error.WriteLine("Choose fit, rules, pour, start, open, load, words, wrap, treat, slider, typing, nudge, pointer, line, previews, import, " +
            "check, compare, press or pdf.");
        return 2;
}
return 0;
