#pragma once

/// Runs what the command line asks for; what a program returns.
int run_tests(int argc, char** argv);
